import type { DocumentFacts, Plan, Printer, Ticket } from '@foglio/core';

/** To the planning worker. Facts are sent once, since they are by far the largest part. */
export type PlanRequest =
  | { readonly kind: 'facts'; readonly documents: readonly DocumentFacts[] }
  | { readonly kind: 'plan'; readonly number: number; readonly ticket: Ticket; readonly printer: Printer };

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

/** From the planning worker: the plan or the trouble, and the milliseconds planning took. */
export type PlanAnswer = { readonly number: number; readonly milliseconds: number } & (
  { readonly plan: Plan; readonly trouble: null } | { readonly plan: null; readonly trouble: PlanTrouble }
);
