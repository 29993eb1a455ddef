import type { DocumentFacts } from '../pages/facts';
import type { Layout, Ticket } from './ticket';
import { TicketError } from './ticket-error';

/**
 * Refuses, by name, every setting that the planner does not take up yet, so that none is ever ignored. As a step of the
 * planner learns one, its line goes from here.
 *
 * @throws TicketError
 */
export function requirePlannable(ticket: Ticket, documents: readonly DocumentFacts[]): void {
  if (documents.length !== ticket.documents.length) {
    throw new TicketError('documents', 'facts of a document are missing', 'read every document first');
  }
  requireLayout('layout', ticket.layout);
  ticket.documents.forEach((document, index) => {
    if (document.numbering !== 'labels') return;
    throw notYet(`documents[${index}].numbering`, 'labels', '"position"');
  });
  if (ticket.newSheet.sections) throw notYet('newSheet.sections', 'true', 'false');
  if (ticket.slips.between !== 'nothing') throw notYet('slips.between', ticket.slips.between, '"nothing"');
  if (ticket.delivery !== 'first-to-last') throw notYet('delivery', ticket.delivery, '"first-to-last"');
  ticket.routes.forEach((route, index) => {
    const place = `routes[${index}]`;
    if (route.layout) requireLayout(`${place}.layout`, route.layout);
    if (route.document !== undefined && route.document > ticket.documents.length) {
      const count = ticket.documents.length;
      const problem = `document ${route.document} is not in the ticket, which has ${count}`;
      throw new TicketError(`${place}.document`, problem, `write a number from 1 to ${count}`);
    }
  });
}

function requireLayout(place: string, layout: Partial<Layout> & { kind: Layout['kind'] }): void {
  if (layout.kind === 'booklet') throw notYet(`${place}.kind`, 'booklet', '"grid"');
  const { pagesPerSide, columns, rows, repeat, frame, marks } = layout;
  if (pagesPerSide !== undefined && pagesPerSide !== 1) throw notYet(`${place}.pagesPerSide`, pagesPerSide, '1');
  if (columns != null) throw notYet(`${place}.columns`, columns, 'null');
  if (rows != null) throw notYet(`${place}.rows`, rows, 'null');
  if (repeat === 'fill-side') throw notYet(`${place}.repeat`, repeat, '"none"');
  if (frame) throw notYet(`${place}.frame`, frame, 'false');
  if (marks === 'cut') throw notYet(`${place}.marks`, marks, '"none"');
}

const notYet = (place: string, value: unknown, repair: string): TicketError =>
  new TicketError(place, `${JSON.stringify(value)} cannot be planned by this version`, `write ${repair}`);
