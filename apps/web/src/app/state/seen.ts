import type { JobDocument, PrinterRecord } from '@foglio/api';
import { sealOf, type Plan, type Seal, type Ticket } from '@foglio/core';

/** A plan on the screen, and what it was made of. */
export interface Seen {
  readonly plan: Plan;
  readonly ticket: Ticket;
  readonly documents: readonly JobDocument[];
  readonly printer: PrinterRecord;
  /** What texts on it tell, "2026-09-01T14:05" (ISO 8601, local time). */
  readonly moment: string;
}

/** What the server compares with its own plan. */
export const sealSeen = ({ plan, ticket, documents, printer, moment }: Seen): Seal =>
  sealOf({ plan, ticket, documents, printer: printer.profile, address: printer.uri, moment });
