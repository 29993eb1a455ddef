import {
  momentOf,
  partOf,
  passPlan,
  type DocumentFacts,
  type Plan,
  type Portion,
  type Printer,
  type Ticket,
} from '@foglio/core';
import { shipmentOf } from '@foglio/ipp';
import { planAt } from '@foglio/sentence';

/** What a plan is made of, but for its documents: plain data, for whatever process plans. */
export interface Planning {
  readonly ticket: Ticket;
  readonly printer: Printer;
  /** Of printing: "2026-09-01T14:05". */
  readonly moment: string;
  /** Which of two passes; null: all of it. */
  readonly pass: 1 | 2 | null;
  /** What of the ticket; null: all of it. */
  readonly portion: Portion | null;
}

/** A ticket that is printed now, all of it. */
export const planningNow = (ticket: Ticket, printer: Printer): Planning => ({
  ticket,
  printer,
  moment: momentOf(new Date()),
  pass: null,
  portion: null,
});

/** One document of what is sent for a plan: of which of its jobs, both counted from 0. */
export interface SentDocument {
  readonly job: number;
  readonly document: number;
}

/** @throws TicketError */
export function planOf(
  { ticket, printer, moment, pass, portion }: Planning,
  documents: readonly DocumentFacts[],
): Plan {
  const whole = planAt(ticket, documents, printer, moment, portion);
  return pass === null ? whole : passPlan(whole, pass === 1 ? 'front' : 'back', printer.refeedTray);
}

/** The sheets of documents that are sent, each as a plan. */
export function planSent(plan: Plan, { ticket, printer }: Planning, parts: readonly SentDocument[]): Plan[] {
  const { jobs } = shipmentOf(plan, ticket, printer);
  return parts.map(({ job, document }) => partOf(plan, jobs[job]!.documents[document]!.sheets));
}
