import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', title: 'Desk · Foglio', loadComponent: () => import('./desk/desk').then(({ Desk }) => Desk) },
  {
    path: 'jobs/:id',
    title: 'Bench · Foglio',
    loadComponent: () => import('./bench/bench').then(({ Bench }) => Bench),
  },
  { path: 'queue', title: 'Queue · Foglio', loadComponent: () => import('./queue/queue').then(({ Queue }) => Queue) },
  {
    path: 'queue/:id',
    title: 'Queue · Foglio',
    loadComponent: () => import('./queue/queue').then(({ Queue }) => Queue),
  },
  {
    path: 'printers',
    title: 'Printers · Foglio',
    loadComponent: () => import('./printers/printers').then(({ Printers }) => Printers),
  },
  {
    path: 'printers/:id',
    title: 'Printers · Foglio',
    loadComponent: () => import('./printers/printers').then(({ Printers }) => Printers),
  },
  { path: '**', redirectTo: '' },
];
