import { mmToPoints } from '../paper/sizes';
import type { Box } from '../paper/box';
import type { Mark } from '../plan/plan';

/** How long they are (model, Pages and pieces, Tiles). */
const LENGTH = mmToPoints(5);

/** Lines at both ends of where the area of the next side begins, to the right and below. */
export function joinMarks(
  { x, y, width, height }: Box,
  overlap: number,
  next: { readonly right: boolean; readonly below: boolean },
): Mark[] {
  const [across, up] = [x + width - overlap, y + overlap];
  return [
    ...(next.right
      ? ([
          [across, y, across, y + LENGTH],
          [across, y + height - LENGTH, across, y + height],
        ] satisfies Mark[])
      : []),
    ...(next.below
      ? ([
          [x, up, x + LENGTH, up],
          [x + width - LENGTH, up, x + width, up],
        ] satisfies Mark[])
      : []),
  ];
}
