import {
  deliver,
  isInformationSheet,
  leaf,
  type Plan,
  type Printer,
  type ReadPage,
  type Sheet,
  type Ticket,
} from '@foglio/core';
import { joinedSheets } from './joined';

/** A page of the stack in the hand; null: the blank back of a sheet printed on one side. */
export type Shown = ReadPage | null;

/**
 * What lies before a person at one moment of leafing. Held on the left or the right, the two pages lie beside each other;
 * held at the top, the back of the sheet turned up lies above the next front. Outside of the first and the last there is
 * no paper.
 */
export interface Opening {
  readonly upward: boolean;
  /** On the left, or above. */
  readonly first: Shown | 'none';
  /** On the right, or below. */
  readonly second: Shown | 'none';
  /** The sheets of one page, to be joined; null: leaves as they lie in the hand. */
  readonly joined: readonly Sheet[] | null;
}

interface Leaf {
  readonly front: Shown;
  readonly back: Shown;
}

/** One set of a plan, taken from the tray, turned front side up and leafed through with one edge held. */
export function openingsOf(plan: Plan, printer: Printer, bind: Ticket['bind']): Opening[] {
  const one = { ...plan, sets: 1, slipBetweenSets: null };
  const leaves = leavesOf(leaf(deliver(one, printer), bind));
  const groups = joinedSheets(plan);
  const groupOf = ({ front }: Leaf): readonly Sheet[] | null =>
    groups.find((group) =>
      group.some(({ index }) => index === front?.sheet.index && !isInformationSheet(front.sheet)),
    ) ?? null;
  const openings: Opening[] = [];
  leaves.forEach((leaf, index) => {
    const before = leaves[index - 1];
    const [group, groupBefore] = [groupOf(leaf), before ? groupOf(before) : null];
    if (before && !groupBefore && group) openings.push(place(before.back, 'none', bind));
    if (!group) openings.push(place(before && !groupBefore ? before.back : 'none', leaf.front, bind));
    else if (group !== groupBefore) openings.push({ upward: false, first: 'none', second: 'none', joined: group });
  });
  const last = leaves.at(-1);
  return last && !groupOf(last) ? [...openings, place(last.back, 'none', bind)] : openings;
}

/** Read from the right, the pages lie the other way round. */
function place(earlier: Opening['first'], later: Opening['second'], bind: Ticket['bind']): Opening {
  const [first, second] = bind === 'right' ? [later, earlier] : [earlier, later];
  return { upward: bind === 'top', first, second, joined: null };
}

/** The pages by the pieces of paper they are on: a sheet, or the half of a folded one. */
function leavesOf(pages: Iterable<ReadPage>): Leaf[] {
  const leaves: Leaf[] = [];
  let open: ReadPage | null = null;
  for (const page of pages) {
    if (open && isOtherSide(open, page)) {
      leaves.push({ front: open, back: page });
      open = null;
      continue;
    }
    if (open) leaves.push({ front: open, back: null });
    open = page;
  }
  if (open) leaves.push({ front: open, back: null });
  return leaves;
}

/** A folded sheet tells both sides of each half, one after the other; any other has a back where there is one to tell. */
const isOtherSide = (one: ReadPage, other: ReadPage): boolean =>
  one.sheet === other.sheet && one.which !== other.which && (one.half === null) === (other.half === null);

/** "Front of sheet 2, Tray 1, page 4" */
export function sayShown(shown: Shown | 'none', trayName: (id: string | null) => string): string {
  if (shown === 'none') return '';
  if (shown === null) return 'Back, not printed';
  const { sheet, which, cells, half } = shown;
  if (isInformationSheet(sheet)) return `Information sheet, ${which}, ${trayName(sheet.tray)}`;
  const pages = cells.map(({ page }) => page);
  const what = pages.length === 0 ? 'blank' : pages.length === 1 ? `page ${pages[0]}` : `pages ${pages.join(', ')}`;
  const side = `${which === 'front' ? 'front' : 'back'}${half ? `, ${half} half` : ''}`;
  return `Sheet ${sheet.index}, ${side}, ${trayName(sheet.tray)}: ${what}`;
}
