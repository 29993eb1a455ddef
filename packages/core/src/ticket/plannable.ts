import type { DocumentFacts } from '../pages/facts';
import { readSizeName } from '../paper/sizes';
import { LINE_FIELDS } from './line-fields';
import { routeSettings, ticketSettings, type Layout, type Ticket } from './ticket';
import { TicketError } from './ticket-error';

/**
 * Refuses, by name, what no schema can see: settings that contradict each other or the documents.
 *
 * @throws TicketError
 */
export function requirePlannable(ticket: Ticket, documents: readonly DocumentFacts[]): void {
  if (documents.length !== ticket.documents.length) {
    throw new TicketError('documents', 'facts of a document are missing', 'read every document first');
  }
  requireLayout('layout', ticketSettings(ticket).layout);
  requireSize('paper.size', ticket.paper.size);
  ticket.lines.forEach(({ text }, index) => requireFields(`lines[${index}].text`, text));
  ticket.routes.forEach((route, index) => {
    const place = `routes[${index}]`;
    if (route.layout) requireLayout(`${place}.layout`, routeSettings(ticket, route).layout);
    if (route.paper?.size !== undefined) requireSize(`${place}.paper.size`, route.paper.size);
    if (route.document !== undefined && route.document > ticket.documents.length) {
      const count = ticket.documents.length;
      const problem = `document ${route.document} is not in the ticket, which has ${count}`;
      throw new TicketError(`${place}.document`, problem, `write a number from 1 to ${count}`);
    }
  });
}

function requireFields(place: string, text: string): void {
  for (const { 0: all, 1: name, index } of text.matchAll(/\{([^{}]*)\}/g)) {
    if ((LINE_FIELDS as readonly string[]).includes(name ?? '')) continue;
    const known = LINE_FIELDS.map((field) => `{${field}}`).join(', ');
    throw new TicketError(place, `${all} is nothing that can be filled in`, `write ${known}`, index, all.length);
  }
}

function requireLayout(place: string, layout: Layout): void {
  if (layout.kind !== 'grid' || (layout.columns === null) === (layout.rows === null)) return;
  const [given, missing] = layout.columns === null ? ['rows', 'columns'] : ['columns', 'rows'];
  throw new TicketError(`${place}.${missing}`, `${given} are given without ${missing}`, 'give both or neither');
}

function requireSize(place: string, size: string): void {
  if (size === 'as-page' || (readSizeName(size)?.width ?? 0) > 0) return;
  const repair = 'write "as-page" or one like "iso_a4_210x297mm"';
  throw new TicketError(place, `"${size}" is not a PWG 5101.1 size name`, repair);
}
