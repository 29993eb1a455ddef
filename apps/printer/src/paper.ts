import type { Printer } from '@foglio/core';

/** What was printed on a face: a page of one of a job's documents, both counted from 1. */
export interface Mark {
  readonly job: number;
  readonly document: number;
  readonly page: number;
}

/** A sheet of paper as it lies, in a tray or in the output: what is on its upper and on its lower face. */
export interface Paper {
  readonly upper: Mark | null;
  readonly lower: Mark | null;
}

export const BLANK: Paper = { upper: null, lower: null };

const turnOver = ({ upper, lower }: Paper): Paper => ({ upper: lower, lower: upper });

/**
 * A sheet as it lies in the output after it was printed on both faces by a duplex unit, the front last, or on one: the face
 * that lies towards the print engine in the tray. The face printed last lies as the printer delivers (common practice).
 */
export function printed(paper: Paper, front: Mark, back: Mark | null, { delivers, printsOn }: Printer): Paper {
  if (back) return delivers === 'face-up' ? { upper: front, lower: back } : { upper: back, lower: front };
  const marked = printsOn === 'upper' ? { ...paper, upper: front } : { ...paper, lower: front };
  const isUp = printsOn === 'upper';
  return isUp === (delivers === 'face-up') ? marked : turnOver(marked);
}

/** A stack, its lowest sheet first, as it lies when it is put back: as it is, or turned over as a whole. */
export const putBack = (stack: readonly Paper[], turned: boolean): Paper[] =>
  turned ? stack.map(turnOver).reverse() : stack.map(({ upper, lower }) => ({ upper, lower }));
