import type { Check, PageName, Repair } from '../plan/plan';
import { pagesOf } from '../planning/run';
import { routePages, type RouteChange } from '../ticket/route-pages';
import type { Route, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import type { CheckContext } from './context';

/** The ticket as a repair leaves it. */
const repaired = (ticket: Ticket, { patch }: Pick<Repair, 'patch'>): Ticket => ({ ...ticket, ...patch });

/** A check with its repair, where there is one. */
export const withRepair = (check: Check, repair: Repair | null): Check => (repair ? { ...check, repair } : check);

/**
 * The change that prints these pages otherwise: of the ticket itself where it has no routes and they are all its pages,
 * otherwise by routes.
 */
export function changePages(
  { ticket, documents, runs }: CheckContext,
  pages: readonly PageName[],
  change: RouteChange,
): Partial<Ticket> {
  if (ticket.routes.length === 0 && isEveryPage(runs, pages)) return changeOfTicket(ticket, change);
  const routed = routePages(ticket, documents, pages, change);
  return routed.documents === ticket.documents
    ? { routes: routed.routes }
    : { routes: routed.routes, documents: routed.documents };
}

function isEveryPage(runs: CheckContext['runs'], pages: readonly PageName[]): boolean {
  const keyOf = ({ document, page }: PageName): string => `${document} ${page}`;
  const named = new Set(pages.map(keyOf));
  return runs.every((run) => pagesOf(run).every((page) => named.has(keyOf(page))));
}

function changeOfTicket(ticket: Ticket, { tray, sides, color, paper, scale }: RouteChange): Partial<Ticket> {
  return {
    ...(tray ? { tray } : {}),
    ...(sides ? { sides } : {}),
    ...(color ? { color } : {}),
    ...(paper ? { paper: { ...ticket.paper, ...paper } } : {}),
    ...(scale ? { scale: { ...ticket.scale, ...scale } } : {}),
  };
}

/** The routes with something changed in each; their order, and so what rules which page, stays. */
export const mapRoutes = (ticket: Ticket, change: (route: Route) => Partial<Route>): Route[] =>
  ticket.routes.map((route) => ({ ...route, ...change(route) }));

/** One-sided throughout; null where a booklet would still be two-sided. */
export function oneSidedThroughout({ ticket, runs }: CheckContext): Repair | null {
  if (runs.some((run) => run.settings.layout.kind === 'booklet')) return null;
  const routes = mapRoutes(ticket, (route) => (route.sides ? { sides: 'one-sided' } : {}));
  return { label: 'Print one-sided', patch: { sides: 'one-sided', ...(routes.length > 0 ? { routes } : {}) } };
}

/** A tray's name everywhere in the ticket put in place of another's. */
export function replaceTray(ticket: Ticket, from: string, to: string): Partial<Ticket> {
  const other = (tray: string): string => (tray === from ? to : tray);
  const cover = <T extends { kind: string; cover?: string | null }>(layout: T): T =>
    layout.cover ? { ...layout, cover: other(layout.cover) } : layout;
  const { layout, slips, informationSheet } = ticket;
  const onItsOwn = <T extends { tray: string | null }>(sheet: T): T =>
    sheet.tray === null ? sheet : { ...sheet, tray: other(sheet.tray) };
  return {
    tray: other(ticket.tray),
    layout: layout.kind === 'booklet' ? cover(layout) : layout,
    slips: onItsOwn(slips),
    informationSheet: onItsOwn(informationSheet),
    routes: mapRoutes(ticket, (route) => ({
      ...(route.tray ? { tray: other(route.tray) } : {}),
      ...(route.layout?.kind === 'booklet' ? { layout: cover(route.layout) } : {}),
    })),
  };
}

/**
 * The first of several repairs after which a check no longer stands, found by trying them.
 *
 * @param stands the question the check asks, without looking for repairs in turn
 */
export function firstThatHelps(
  context: CheckContext,
  stands: (changed: CheckContext) => boolean,
  repairs: readonly (Repair | null)[],
): Repair | null {
  const helps = (repair: Repair): boolean => {
    try {
      const ticket = repaired(context.ticket, repair);
      return !stands({ ...context, ...context.draft(ticket, context.documents, context.printer), ticket });
    } catch (error) {
      if (error instanceof TicketError) return false;
      throw error;
    }
  };
  return repairs.find((repair) => repair !== null && helps(repair)) ?? null;
}
