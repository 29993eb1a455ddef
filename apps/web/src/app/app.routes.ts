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
  {
    path: 'set-ups',
    title: 'Set-ups · Foglio',
    loadComponent: () => import('./setups/setups').then(({ Setups }) => Setups),
  },
  {
    path: 'set-ups/:id',
    title: 'Set-ups · Foglio',
    loadComponent: () => import('./setups/setups').then(({ Setups }) => Setups),
  },
  {
    path: 'series',
    title: 'Many files · Foglio',
    loadComponent: () => import('./series/series').then(({ Series }) => Series),
  },
  {
    path: 'series/:id',
    title: 'Many files · Foglio',
    loadComponent: () => import('./series/series').then(({ Series }) => Series),
  },
  { path: '**', redirectTo: '' },
];
