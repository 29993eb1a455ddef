import { mmToPoints } from '../paper/sizes';
import type { Box } from '../paper/box';
import type { Mark } from '../plan/plan';

/** Cut marks keep away from what is cut out and are this long (common practice: about 1 and 5 mm). */
const AWAY = mmToPoints(1);
const LENGTH = mmToPoints(5);

/** With less room than this no line can be seen. */
const LEAST_ROOM = mmToPoints(0.5);

type Edge = 'left' | 'right' | 'bottom' | 'top';

/**
 * Two short lines at each corner of everything on a side, in line with its edges. Between neighbours each has half of the
 * room, up to where the other's begins; where there is no room, as between pages that touch, the marks at the outer edge show where to cut.
 *
 *       |       |
 *     --+-------+--
 *       |       |
 *     --+-------+--
 *       |       |
 */
export function cutMarks(boxes: readonly Box[], side: Box): Mark[] {
  const marks: Mark[] = [];
  const add = (x: number, y: number, edge: Edge): void => {
    const room = roomFrom(x, y, edge, boxes, side);
    if (room < LEAST_ROOM) return;
    // Close cards have little room between them: a mark that kept its usual distance would be a dot there.
    const away = Math.min(AWAY, room / 4);
    const reach = Math.min(away + LENGTH, room);
    const sign = edge === 'left' || edge === 'bottom' ? -1 : 1;
    if (edge === 'left' || edge === 'right') marks.push([x + sign * away, y, x + sign * reach, y]);
    else marks.push([x, y + sign * away, x, y + sign * reach]);
  };
  for (const { x, y, width, height } of boxes) {
    for (const [cornerX, outward] of [
      [x, 'left'],
      [x + width, 'right'],
    ] as const) {
      for (const [cornerY, onward] of [
        [y, 'bottom'],
        [y + height, 'top'],
      ] as const) {
        add(cornerX, cornerY, outward);
        add(cornerX, cornerY, onward);
      }
    }
  }
  return marks;
}

/** Free length from a corner outward: to the paper's edge, or half way to the next box that the line would meet. */
function roomFrom(x: number, y: number, edge: Edge, boxes: readonly Box[], side: Box): number {
  const sideways = edge === 'left' || edge === 'right';
  const start = sideways ? x : y;
  const across = sideways ? y : x;
  const outward = edge === 'left' || edge === 'bottom' ? -1 : 1;
  let room = outward < 0 ? start : (sideways ? side.width : side.height) - start;
  for (const box of boxes) {
    const [from, length] = sideways ? [box.y, box.height] : [box.x, box.width];
    if (across < from || across > from + length) continue;
    const [near, extent] = sideways ? [box.x, box.width] : [box.y, box.height];
    const distance = outward < 0 ? start - (near + extent) : near - start;
    // The box itself, and those on the other side of the corner, lie behind.
    if (distance >= 0 && distance / 2 < room) room = distance / 2;
  }
  return room;
}

/** The outline of everything on a side. */
export function frames(boxes: readonly Box[]): Mark[] {
  return boxes.flatMap(({ x, y, width, height }): Mark[] => [
    [x, y, x + width, y],
    [x + width, y, x + width, y + height],
    [x + width, y + height, x, y + height],
    [x, y + height, x, y],
  ]);
}
