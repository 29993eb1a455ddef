import { PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import type { Space, Taken } from './objects/write-file';

/** A file that is made of its own objects and of those of other files. */
export interface Target extends Space {
  readonly taken: Map<PDFRef, Taken>;
  /** By the space they come from. */
  readonly takers: Map<Space, Map<PDFRef, PDFRef>>;
}

export const newTarget = (): Target => ({
  context: PDFContext.create(),
  taken: new Map(),
  takers: new Map(),
});

/** The reference under which an object of another file stands in a target: the same each time. */
export function take(target: Target, from: Space, ref: PDFRef): PDFRef {
  const known = target.takers.get(from) ?? new Map<PDFRef, PDFRef>();
  target.takers.set(from, known);
  const taken = known.get(ref) ?? target.context.nextRef();
  known.set(ref, taken);
  target.taken.set(taken, { space: from, ref });
  return taken;
}
