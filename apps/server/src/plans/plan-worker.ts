import { TicketError } from '@foglio/core';
import { move, transferableSymbol, valueSymbol } from 'piscina';
import { answer, type PlannedDocument, type Question } from './answers';
import type { Planning } from './planning';

/** Runs in a thread of its own, so that the server answers others while it plans. */

export interface PlanRequest {
  readonly question: Question;
  readonly planning: Planning;
  readonly documents: readonly PlannedDocument[];
}

/** What comes of it. An error of a class of ours would arrive as one of none. */
export type PlanReport =
  | { readonly answer: unknown }
  | { readonly refused: Pick<TicketError, 'message' | 'place' | 'position'> };

export default function plan({ question, planning, documents }: PlanRequest): PlanReport | ReturnType<typeof move> {
  try {
    const found = answer(question, planning, documents);
    return found instanceof Uint8Array ? handOver({ answer: found }, found) : { answer: found };
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    const { message, place, position } = error;
    return { refused: { message, place, position } };
  }
}

/** Bytes are handed over and not copied: whoever gets them has the server's thread. */
const handOver = (report: PlanReport, { buffer }: Uint8Array): ReturnType<typeof move> =>
  move({
    get [transferableSymbol]() {
      return buffer;
    },
    get [valueSymbol]() {
      return report;
    },
  });
