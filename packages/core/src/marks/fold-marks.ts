import { mmToPoints } from '../paper/sizes';
import type { Box } from '../paper/box';
import type { Mark } from '../plan/plan';

/** As long as a cut mark (common practice: about 5 mm). */
const LENGTH = mmToPoints(5);

/**
 * Where a side is folded: a short line at each end of the fold, within what is printed at all.
 *
 *     +----|----+
 *     |         |
 *     +----|----+
 */
export function foldMarks({ x, y, width, height }: Box): Mark[] {
  const fold = x + width / 2;
  return [
    [fold, y, fold, y + LENGTH],
    [fold, y + height - LENGTH, fold, y + height],
  ];
}
