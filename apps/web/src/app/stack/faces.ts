import type { DeliveredSheet, PrintedFace } from '@foglio/api';

/** What is on the front and on the back of a printed sheet; null: nothing. */
export interface Faces {
  readonly front: PrintedFace | null;
  readonly back: PrintedFace | null;
}

/** Both faces of a delivered sheet, also where its back was printed in a second pass over a front of before. */
export function facesOf({ job, document, front, back, upper, lower }: DeliveredSheet): Faces {
  const mark = { job, document, page: front };
  if (back !== null) return { front: mark, back: { job, document, page: back } };
  // Printed on before: that was its front.
  const before = [upper, lower].find((face) => face !== null && face.job !== job);
  return before ? { front: before, back: mark } : { front: mark, back: null };
}
