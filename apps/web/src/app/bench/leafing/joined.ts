import type { Cell, Plan, Sheet } from '@foglio/core';

/** The one cell of a side that shows a piece of a page; null where it shows a whole one, or several. */
export function tileOf({ front, back, slip }: Sheet): Tile | null {
  const [cell, other] = front.cells;
  return cell?.clip && !other && back === null && !slip ? (cell as Tile) : null;
}

/** A cell that shows a piece of a page. */
type Tile = Cell & { readonly clip: NonNullable<Cell['clip']> };

/** The sheets of each page that lies over several, in their order: they are to be joined. */
export function joinedSheets({ sheets }: Pick<Plan, 'sheets'>): Sheet[][] {
  const groups: Sheet[][] = [];
  for (const sheet of sheets) {
    const last = groups.at(-1)?.at(-1);
    if (last && areNeighbours(last, sheet)) groups.at(-1)?.push(sheet);
    else groups.push([sheet]);
  }
  return groups.filter((group) => group.length > 1);
}

/** Of sheets that are to be joined, by their numbers: which one of how many, "2 of 8". Worked out once a plan. */
export function joinedPlaces(plan: Pick<Plan, 'sheets'>): ReadonlyMap<number, string> {
  const known = places.get(plan.sheets);
  if (known) return known;
  const found = new Map(
    joinedSheets(plan).flatMap((group) => group.map(({ index }, at) => [index, `${at + 1} of ${group.length}`])),
  );
  places.set(plan.sheets, found);
  return found;
}

const places = new WeakMap<Plan['sheets'], ReadonlyMap<number, string>>();

/** Pieces of one page as large as each other, of which the second goes on where the first ends. */
function areNeighbours(one: Sheet, other: Sheet): boolean {
  const [a, b] = [tileOf(one), tileOf(other)];
  if (!a || !b || one.run !== other.run) return false;
  const isSame = a.document === b.document && a.page === b.page && a.scale === b.scale;
  // Row by row from the upper left: further right, or further down and from the left again.
  return isSame && (b.x < a.x - 1 || b.y > a.y + 1);
}

/** Where a piece lies on its page as printed, in points from the page's lower left corner. */
export const placeOnPage = ({ x, y, clip }: Tile) => ({
  x: clip[0] - x,
  y: clip[1] - y,
  width: clip[2],
  height: clip[3],
});
