import { OF_SHEET } from '../settings';
import type { PageSettings, Ticket } from '../ticket/ticket';
import type { Stretch } from './route';
import { BLANK } from './select';

/** Whether pages printed so are fronts and backs of pieces, one behind the other. */
export const liesBehind = ({ layout }: Pick<PageSettings, 'layout'>): boolean =>
  layout.kind === 'grid' && layout.backs === 'behind';

/**
 * Pages whose layout has backs behind, in pairs: each stretch of a page with its back after it (model, Pages and pieces,
 * Backs behind). A back is printed as it is, but on its front's sheet; a last page alone has a blank back. A blank front
 * takes what its back has; two blanks are no piece.
 */
export function pairUp(routed: readonly Stretch[], { inTurn }: Pick<Ticket, 'inTurn'>): readonly Stretch[] {
  if (!routed.some(({ settings }) => liesBehind(settings))) return routed.filter((one) => !isBlank(one));
  const onSheetOf = sheetSharer();
  const singles = routed.flatMap((one) => one.pages.map((page): Stretch => ({ ...one, pages: [page] })));
  const paired: Stretch[] = [];
  for (let at = 0; at < singles.length; at += 1) {
    const one = singles[at] as Stretch;
    const next = singles[at + 1];
    if (isBlank(one)) {
      if (next && isBlank(next)) at += 1;
      else if (next && liesBehind(next.settings)) {
        paired.push(blankOf(next), { ...next, isBack: true });
        at += 1;
      }
    } else if (!liesBehind(one.settings)) paired.push(one);
    else if (next && !isBlank(next) && (inTurn || next.document === one.document)) {
      paired.push(one, { ...next, settings: onSheetOf(one.settings, next.settings), isBack: true });
      at += 1;
    } else {
      paired.push(one, { ...blankOf(one), isBack: true });
      if (next && isBlank(next)) at += 1;
    }
  }
  return paired;
}

export const isBlank = ({ pages }: Stretch): boolean => pages[0] === BLANK;

const blankOf = (one: Stretch): Stretch => ({ ...one, pages: [BLANK], source: null });

/** The settings of a back: its own, but for all that decides on the sheet; made once for each two. */
function sheetSharer(): (front: PageSettings, back: PageSettings) => PageSettings {
  const known = new Map<PageSettings, Map<PageSettings, PageSettings>>();
  return (front, back) => {
    if (front === back) return back;
    const ofFront = known.get(front) ?? new Map<PageSettings, PageSettings>();
    known.set(front, ofFront);
    let made = ofFront.get(back);
    if (!made) {
      const { tray, paper, layout, ownSheet } = front;
      const ofSheet = Object.fromEntries(OF_SHEET.map(({ name }) => [name, front[name]]));
      made = { ...back, tray, paper, layout, ownSheet, ...ofSheet };
      ofFront.set(back, made);
    }
    return made;
  };
}
