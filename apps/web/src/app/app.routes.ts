import type { Route, Routes, UrlMatcher, UrlSegment } from '@angular/router';
import { OwnScreen } from './state/own-screen';

const bench = (): Promise<unknown> => import('./bench/bench').then(({ Bench }) => Bench);
const queue = (): Promise<unknown> => import('./queue/queue').then(({ Queue }) => Queue);
const setups = (): Promise<unknown> => import('./setups/setups').then(({ Setups }) => Setups);

const benchStore = (): Promise<unknown> => import('./state/own-store').then((module) => module.benchStore);
const queueStore = (): Promise<unknown> => import('./state/own-store').then((module) => module.queueStore);

/** What the Bench is made of. */
export const loadBench = (): Promise<unknown> => Promise.all([bench(), benchStore()]);

/**
 * A list and its entries are one screen: of an entry that is chosen nothing else is drawn anew, and what has the focus keeps it.
 */
const withOrWithoutId = (path: string): { readonly matcher: UrlMatcher } => ({
  matcher: (segments) => {
    const [first, id] = segments;
    if (first?.path !== path || segments.length > 2) return null;
    const posParams: Record<string, UrlSegment> = id ? { id } : {};
    return { consumed: segments, posParams };
  },
});

/** A screen over a store of its own, which lives and dies with it. */
const own = (
  at: Pick<Route, 'path' | 'matcher'>,
  title: string,
  resolve: Route['resolve'],
  data: Route['data'] = {},
): Route => ({
  ...at,
  title,
  component: OwnScreen,
  resolve: resolve!,
  data,
});

export const routes: Routes = [
  { path: '', title: 'Desk · Foglio', loadComponent: () => import('./desk/desk').then(({ Desk }) => Desk) },
  own({ path: 'jobs/:id' }, 'Bench · Foglio', { screen: bench, store: benchStore }, { perId: true }),
  own(withOrWithoutId('queue'), 'Queue · Foglio', { screen: queue, store: queueStore }),
  {
    ...withOrWithoutId('printers'),
    title: 'Printers · Foglio',
    loadComponent: () => import('./printers/printers').then(({ Printers }) => Printers),
  },
  own(withOrWithoutId('set-ups'), 'Set-ups · Foglio', { screen: setups, store: benchStore }),
  {
    ...withOrWithoutId('series'),
    title: 'Many files · Foglio',
    loadComponent: () => import('./series/series').then(({ Series }) => Series),
  },
  {
    path: 'print-from-programs',
    title: 'Print from other programs · Foglio',
    loadComponent: () => import('./programs/programs').then(({ Programs }) => Programs),
  },
  { path: 'spend', title: 'Spend · Foglio', loadComponent: () => import('./spend/spend').then(({ Spend }) => Spend) },
  { path: 'guide', title: 'Guide · Foglio', loadComponent: () => import('./guide/guide').then(({ Guide }) => Guide) },
  { path: '**', redirectTo: '' },
];
