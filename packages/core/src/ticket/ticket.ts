import type { FromSchema } from 'json-schema-to-ts';
import { carriedBy, settingOf, type CarriedBy } from '../settings';
import type { routeSchema, ticketSchema } from './ticket.schema';

type Filled = FromSchema<typeof ticketSchema>;
type Given = FromSchema<typeof ticketSchema, { keepDefaultedPropertiesOptional: true }>;

/** A ticket with every default filled in: what the planner takes. */
export type Ticket = Omit<Filled, 'routes'> & { routes: Route[] };

/** A ticket as written by a person: everything but `version` and `documents` may be left out. */
export type TicketInput = Omit<Given, 'routes'> & { routes?: Route[] };

export type Layout = Ticket['layout'];
export type GridLayout = Extract<Layout, { kind: 'grid' }>;
export type TilesLayout = Extract<Layout, { kind: 'tiles' }>;
export type Sides = Ticket['sides'];
export type Part = Ticket['documents'][number]['part'];
export type Rotation = Ticket['documents'][number]['rotate'];

/** The settings that a route may have a say in and that the ticket has too; the others are of routes alone. */
type Shared = CarriedBy<'route'> & CarriedBy<'ticket'>;

/** What is different for some pages; what it leaves out is the ticket's, or the document's. */
export type Route = FromSchema<typeof routeSchema>;

/** What rules the printing of one page: the ticket's settings with those of its route laid over them. */
export type PageSettings = Readonly<Pick<Ticket, Shared>> & {
  /** Null: the document's own. */
  readonly rotate: Rotation | null;
  /** Null: the document's own. */
  readonly part: Part | null;
  readonly ownSheet: boolean;
};

const OF_ROUTE = carriedBy('route');
const SHARED = OF_ROUTE.filter((name): name is Shared => settingOf(name).carriers.includes('ticket'));

/** The settings of pages that no route names. */
export function ticketSettings(ticket: Ticket): PageSettings {
  const shared = Object.fromEntries(SHARED.map((name) => [name, ticket[name]])) as Pick<Ticket, Shared>;
  return { ...shared, rotate: null, part: null, ownSheet: false };
}

/**
 * The settings of a route's pages: what the route leaves out is the ticket's (model, Ticket).
 *
 * @param base the ticket's own, where they are known already: of many routes they need not be gathered anew
 */
export function routeSettings(ticket: Ticket, route: Route, base = ticketSettings(ticket)): PageSettings {
  const settings: Record<string, unknown> = { ...base };
  for (const name of OF_ROUTE) {
    // What a route leaves alone stays the very same object, so that later steps know at once that it is alike.
    if (route[name] !== undefined) settings[name] = laidOver(name, settings[name], route[name]);
  }
  return settings as unknown as PageSettings;
}

function laidOver(name: CarriedBy<'route'>, base: unknown, own: unknown): unknown {
  const special = settingOf(name).laidOver as ((base: unknown, own: unknown) => unknown) | undefined;
  if (special) return special(base, own);
  return typeof own === 'object' ? { ...(base as object), ...own } : own;
}

/** The ticket as it would be were all of it printed like the pages of a route. */
export function allLike(ticket: Ticket, route: Route): Ticket {
  const settings = routeSettings(ticket, route);
  return { ...ticket, ...Object.fromEntries(SHARED.map((name) => [name, settings[name]])) };
}

/** Whether no page may come out in colour. */
export const isMonochrome = ({ color, routes }: Pick<Ticket, 'color' | 'routes'>): boolean =>
  color === 'monochrome' && routes.every((route) => route.color !== 'auto');
