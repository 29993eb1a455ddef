import type { DocumentFacts, FewestSheets, Outcome, Plan, Printer, RowOutcome, Ticket, WayToPrint } from '@foglio/core';
import type { Packed } from './packed';

/** What the planning worker is asked of a ticket and a printer. */
export type Question =
  | { readonly kind: 'plan' }
  /** What the ticket would come to with this change. */
  | { readonly kind: 'outcome'; readonly patch: Partial<Ticket> }
  /** The usual ways to print the same pages. */
  | { readonly kind: 'ways' }
  | { readonly kind: 'fewest'; readonly minimumTextPt: number }
  /** What one file of a series comes to. */
  | { readonly kind: 'row'; /** Of the printer. */ readonly address: string };

/** To the planning worker. Facts are sent once, since they are by far the largest part. */
export type PlanRequest =
  | { readonly kind: 'facts'; readonly documents: readonly DocumentFacts[] }
  | {
      readonly kind: 'question';
      readonly number: number;
      readonly ticket: Ticket;
      readonly printer: Printer;
      readonly question: Question;
    };

/** Where a ticket cannot be planned. */
export interface PlanTrouble {
  readonly place: string;
  readonly problem: string;
  readonly repair: string;
  /** Offset in the selection text at `place`, or null where it is no text. */
  readonly position: number | null;
  readonly length: number;
  readonly replacement: string | null;
}

/** The plan or the trouble, and the milliseconds planning took. */
export type PlanAnswer = { readonly milliseconds: number } & (
  | {
      readonly plan: Plan;
      /** What texts on it tell, "2026-09-01T14:05" (ISO 8601, local time). */
      readonly moment: string;
      readonly trouble: null;
    }
  | { readonly plan: null; readonly trouble: PlanTrouble }
);

/** What answers each kind of question; null: the ticket cannot be planned so. */
export interface Answers {
  readonly plan: PlanAnswer;
  readonly outcome: Outcome | null;
  readonly ways: readonly WayToPrint[] | null;
  readonly fewest: FewestSheets | null;
  readonly row: RowOutcome;
}

/** From the planning worker. */
export interface PlanReply {
  readonly number: number;
  readonly answer: Answers[Question['kind']];
  /** Of an answer with a plan, its plan, which may be of thousands of sheets. */
  readonly packed: Packed | null;
}
