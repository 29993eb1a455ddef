export { routePages, type PageToRoute, type RouteChange } from './ticket/route-pages';
/** All that other rooms may import of the core; `validate` is apart, since Ajv has no place in the browser. */
export { orientationOf, type Orientation } from './paper/orientation';
export { findTray, trayName, type Printer, type PrinterInput, type Tray } from './paper/printer';
export { printerSchema } from './paper/printer.schema';
export { KNOWN_SIZES, matchSize, mmToPoints, pointsToMm, readSizeName, saySize, type NamedSize } from './paper/sizes';
export type { DocumentFacts, PageFacts } from './pages/facts';
export { selectPages } from './pages/selection';
export { SelectionError } from './pages/selection-error';
export { listPages, sayPages, writeSelection } from './pages/selection-write';
export { plan, type Cell, type Check, type PageName, type Plan, type Sheet, type Side } from './plan/plan';
export { planSchema } from './plan/plan.schema';
export { pageRotations } from './plan/route';
export { profileForTicket } from './plan/profile-for-ticket';
export type { Route, Sides, Ticket, TicketInput } from './ticket/ticket';
export { TicketError } from './ticket/ticket-error';
export { ticketSchema } from './ticket/ticket.schema';
