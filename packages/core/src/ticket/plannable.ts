import type { DocumentFacts } from '../pages/facts';
import { carriedBy, settingOf, type SettingName } from '../settings';
import type { Contradiction } from '../settings/setting';
import { routeSettings, ticketSettings, type Ticket } from './ticket';
import { TicketError } from './ticket-error';

const OF_ROUTE = carriedBy('route');

/**
 * Refuses, by name, what no schema can see: settings that contradict each other or the documents.
 *
 * @throws TicketError
 */
export function requirePlannable(ticket: Ticket, documents: readonly DocumentFacts[]): void {
  if (documents.length !== ticket.documents.length) {
    throw new TicketError('documents', 'facts of a document are missing', 'read every document first');
  }
  for (const name of carriedBy('ticket')) requireConsistent(name, name, ticket[name]);
  const base = ticketSettings(ticket);
  ticket.routes.forEach((route, index) => {
    const place = `routes[${index}]`;
    const settings = routeSettings(ticket, route, base);
    for (const name of OF_ROUTE) {
      if (route[name] !== undefined) requireConsistent(`${place}.${name}`, name, settings[name]);
    }
    if (route.document !== undefined && route.document > ticket.documents.length) {
      const count = ticket.documents.length;
      const problem = `document ${route.document} is not in the ticket, which has ${count}`;
      throw new TicketError(`${place}.document`, problem, `write a number from 1 to ${count}`);
    }
  });
}

function requireConsistent(place: string, name: SettingName, value: unknown): void {
  const wrong = (settingOf(name).contradiction as ((value: unknown) => Contradiction | null) | undefined)?.(value);
  if (wrong) throw new TicketError(place + wrong.part, wrong.problem, wrong.repair, wrong.position, wrong.length);
}
