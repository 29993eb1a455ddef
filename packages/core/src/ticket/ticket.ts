import type { FromSchema } from 'json-schema-to-ts';
import { bookletDefaults, gridDefaults, type routeSchema, type ticketSchema } from './ticket.schema';

/** A ticket with every default filled in: what the planner takes. */
export type Ticket = Omit<FromSchema<typeof ticketSchema>, 'routes'> & { routes: Route[] };

/** A ticket as written by a person: everything but `version` and `documents` may be left out. */
export type TicketInput = Omit<FromSchema<typeof ticketSchema, { keepDefaultedPropertiesOptional: true }>, 'routes'> & {
  routes?: Route[];
};

export type Route = FromSchema<typeof routeSchema>;
export type Layout = Ticket['layout'];
export type GridLayout = Extract<Layout, { kind: 'grid' }>;
export type Sides = Ticket['sides'];
export type Rotation = Ticket['documents'][number]['rotate'];

/** What rules the printing of one page: the ticket's settings with those of its route laid over them. */
export interface PageSettings {
  readonly tray: string;
  readonly sides: Sides;
  readonly layout: Layout;
  readonly paper: Ticket['paper'];
  readonly scale: Ticket['scale'];
  readonly margin: number;
  readonly color: Ticket['color'];
  /** Null: the document's own. */
  readonly rotate: Rotation | null;
  readonly ownSheet: boolean;
}

/** The settings of pages that no route names. */
export function ticketSettings(ticket: Ticket): PageSettings {
  const { tray, sides, layout, paper, scale, margin, color } = ticket;
  return { tray, sides, layout, paper, scale, margin, color, rotate: null, ownSheet: false };
}

/** The settings of a route's pages: what the route leaves out is the ticket's (model, Ticket). */
export function routeSettings(ticket: Ticket, route: Route): PageSettings {
  const base = ticketSettings(ticket);
  return {
    tray: route.tray ?? base.tray,
    sides: route.sides ?? base.sides,
    layout: route.layout ? routeLayout(base.layout, route.layout) : base.layout,
    // What a route leaves alone stays the very same object, so that later steps know at once that it is alike.
    paper: route.paper ? { ...base.paper, ...route.paper } : base.paper,
    scale: route.scale ? { ...base.scale, ...route.scale } : base.scale,
    margin: route.margin ?? base.margin,
    color: route.color ?? base.color,
    rotate: route.rotate ?? null,
    ownSheet: route.ownSheet ?? false,
  };
}

/** Whether no page may come out in colour. */
export const isMonochrome = ({ color, routes }: Pick<Ticket, 'color' | 'routes'>): boolean =>
  color === 'monochrome' && routes.every((route) => route.color !== 'auto');

/** A layout of the ticket's kind is completed from it; one of another kind stands on its own defaults. */
function routeLayout(base: Layout, own: NonNullable<Route['layout']>): Layout {
  if (own.kind === 'booklet') {
    const start = base.kind === 'booklet' ? base : bookletDefaults;
    return { ...start, ...own };
  }
  const start = base.kind === 'grid' ? base : gridDefaults;
  // Pages a side given alone would be silently overruled by the ticket's columns and rows, so these are taken back.
  const givenAlone = own.pagesPerSide !== undefined && own.columns === undefined && own.rows === undefined;
  return { ...start, ...(givenAlone ? { columns: null, rows: null } : {}), ...own };
}
