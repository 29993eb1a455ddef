import { turnTexts } from '../planning/lines';
import type { Cell, Mark, Sheet, Side } from '../plan/plan';

/** A side turned by half a turn: what was at its upper edge is at its lower one. */
export function turnSide(side: Side, { width, height }: Sheet['paper']): Side {
  const [across, up] = side.orientation === 'portrait' ? [width, height] : [height, width];
  const cells = side.cells.map((cell): Cell => {
    const { x, y, clip } = cell;
    return {
      ...cell,
      x: across - x - cell.width,
      y: up - y - cell.height,
      turn: ((cell.turn + 180) % 360) as Cell['turn'],
      clip: clip && [across - clip[0] - clip[2], up - clip[1] - clip[3], clip[2], clip[3]],
    };
  });
  const marks = side.marks?.map(([x1, y1, x2, y2]): Mark => [across - x1, up - y1, across - x2, up - y2]);
  const texts = turnTexts(side, across, up);
  return { orientation: side.orientation, cells, ...(marks ? { marks } : {}), ...(texts ? { texts } : {}) };
}
