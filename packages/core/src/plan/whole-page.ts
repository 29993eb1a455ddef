import type { Box, Extent } from '../paper/box';
import { overlap, turnBox } from '../paper/turn-box';
import type { Cell } from './plan';

type Placed = Omit<Cell, 'document' | 'page'>;

/** Four numbers of a plan as a box. */
export const boxOf = ([x, y, width, height]: NonNullable<Cell['clip']>): Box => ({ x, y, width, height });

/**
 * Where all of a page would lie of which a cell shows a part; the cell itself where that shows all of it.
 *
 * @param page as it is read, in points
 */
export function wholePage({ x, y, width, height, scale, turn, source }: Placed, page: Extent): Box {
  if (!source) return { x, y, width, height };
  const part = turnBox(boxOf(source), page, turn);
  const [across, up] = turn % 180 === 0 ? [page.width, page.height] : [page.height, page.width];
  return { x: x - part.x * scale, y: y - part.y * scale, width: across * scale, height: up * scale };
}

/** What of a placed page can be seen: its place, or what its clip leaves of that. */
export const visibleBox = ({ x, y, width, height, clip }: Pick<Placed, 'x' | 'y' | 'width' | 'height' | 'clip'>): Box =>
  clip ? overlap({ x, y, width, height }, boxOf(clip)) : { x, y, width, height };
