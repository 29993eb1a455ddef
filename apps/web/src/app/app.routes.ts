import type { Route, Routes } from '@angular/router';
import { OwnScreen } from './state/own-screen';

const bench = (): Promise<unknown> => import('./bench/bench').then(({ Bench }) => Bench);
const queue = (): Promise<unknown> => import('./queue/queue').then(({ Queue }) => Queue);
const setups = (): Promise<unknown> => import('./setups/setups').then(({ Setups }) => Setups);

const benchStore = (): Promise<unknown> => import('./state/own-store').then((module) => module.benchStore);
const queueStore = (): Promise<unknown> => import('./state/own-store').then((module) => module.queueStore);

/** A screen over a store of its own, which lives and dies with it. */
const own = (path: string, title: string, resolve: Route['resolve'], data: Route['data'] = {}): Route => ({
  path,
  title,
  component: OwnScreen,
  resolve: resolve!,
  data,
});

export const routes: Routes = [
  { path: '', title: 'Desk · Foglio', loadComponent: () => import('./desk/desk').then(({ Desk }) => Desk) },
  own('jobs/:id', 'Bench · Foglio', { screen: bench, store: benchStore }, { perId: true }),
  own('queue', 'Queue · Foglio', { screen: queue, store: queueStore }),
  own('queue/:id', 'Queue · Foglio', { screen: queue, store: queueStore }),
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
  own('set-ups', 'Set-ups · Foglio', { screen: setups, store: benchStore }),
  own('set-ups/:id', 'Set-ups · Foglio', { screen: setups, store: benchStore }),
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
  {
    path: 'print-from-programs',
    title: 'Print from other programs · Foglio',
    loadComponent: () => import('./programs/programs').then(({ Programs }) => Programs),
  },
  { path: 'guide', title: 'Guide · Foglio', loadComponent: () => import('./guide/guide').then(({ Guide }) => Guide) },
  { path: '**', redirectTo: '' },
];
