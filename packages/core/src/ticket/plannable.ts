import type { DocumentFacts } from '../pages/facts';
import { carriedBy, settingOf, type SettingName } from '../settings';
import { FINISHINGS } from '../settings/finishing-words';
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
  requireFinishable(ticket);
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

/** What is stapled is sheets that lie together (model, After Send). */
function requireFinishable({ finishings, finishEach, inTurn, pieces, collate, copies }: Ticket): void {
  if (finishEach !== 'set' && (inTurn || pieces)) {
    const why = inTurn ? 'the documents take turns' : 'the pages are printed in pieces';
    throw new TicketError('finishEach', `${why}, so no ${finishEach} lies by itself`, 'write "set"');
  }
  const stapled = finishings.find((name) => ['staple', 'stitch'].includes(FINISHINGS[name].kind));
  if (stapled !== undefined && !collate && copies > 1) {
    const problem = `"${stapled}" needs complete sets, and "collate" is false`;
    throw new TicketError(`finishings[${finishings.indexOf(stapled)}]`, problem, 'set "collate" to true or remove it');
  }
}

function requireConsistent(place: string, name: SettingName, value: unknown): void {
  const wrong = (settingOf(name).contradiction as ((value: unknown) => Contradiction | null) | undefined)?.(value);
  if (wrong) throw new TicketError(place + wrong.part, wrong.problem, wrong.repair, wrong.position, wrong.length);
}
