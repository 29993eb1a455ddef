import type { DocumentFacts, Printer, Ticket } from '@foglio/core';

/** What a ticket is said and changed before: its documents, and the printer it is for. */
export interface Situation {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
  /** The document in question, from 0, where an aspect is about one. */
  readonly at: number;
  /** The set-up that new jobs for this printer start from: what differs from it stands out. */
  readonly house: Ticket;
}

/** One value that may be taken. */
export interface Choice {
  readonly label: string;
  readonly patch: Partial<Ticket>;
}

/** A value that is typed. */
export interface NumberField {
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly patch: (value: number) => Partial<Ticket>;
}
