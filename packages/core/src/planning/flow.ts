import type { GridLayout } from '../ticket/ticket';
import type { Box } from '../paper/box';

/**
 * The cells of a grid over an area, in the order in which pages fill them.
 *
 * @param gutter between neighbouring cells, in points
 * @param flow keyword of presentation-direction-number-up (PWG 5100.3): the first word says which way a row of pages
 *   goes, the second which way the rows follow each other
 */
export function gridCells(area: Box, columns: number, rows: number, gutter: number, flow: GridLayout['flow']): Box[] {
  const width = (area.width - gutter * (columns - 1)) / columns;
  const height = (area.height - gutter * (rows - 1)) / rows;
  const sideways = flow.startsWith('toright') || flow.startsWith('toleft');
  return Array.from({ length: columns * rows }, (_, index) => {
    const along = sideways ? index % columns : Math.floor(index / rows);
    const down = sideways ? Math.floor(index / columns) : index % rows;
    const column = flow.includes('toleft') ? columns - 1 - along : along;
    // Rows are counted from the top, y from the bottom.
    const row = flow.includes('totop') ? down : rows - 1 - down;
    return { x: area.x + column * (width + gutter), y: area.y + row * (height + gutter), width, height };
  });
}

/**
 * For each cell of a front, in the order of flow, the cell of the back that lies behind it.
 *
 * @param likeBook the side turns over like a page of a book: mirrored columns; otherwise like one of a pad: mirrored rows
 */
export function mirroredCells(columns: number, rows: number, flow: GridLayout['flow'], likeBook: boolean): number[] {
  const cells = gridCells({ x: 0, y: 0, width: columns, height: rows }, columns, rows, 0, flow);
  return cells.map(({ x, y }) =>
    cells.findIndex((other) =>
      likeBook ? other.x === columns - 1 - x && other.y === y : other.x === x && other.y === rows - 1 - y,
    ),
  );
}
