import { turnTexts } from '../planning/lines';
import { OF_SHEET } from '../settings';
import type { Cell, Mark, Plan, Sheet, Side } from '../plan/plan';

/**
 * One of the two passes as a plan of its own: the sheets in its order, one-sided, each with the face that this pass prints.
 * A face of the second pass that must lie the other way up is turned on its side (model, Two passes).
 *
 * @param refeedTray where the stack goes back in, which the second pass then takes its paper from
 */
export function passPlan(plan: Plan, which: 'front' | 'back', refeedTray: string | null): Plan {
  if (!plan.passes) return plan;
  const [fronts, backs] = plan.passes;
  const turned = new Set(backs.turned);
  const { order } = which === 'front' ? fronts : backs;
  const sheets = order.map((index): Sheet => {
    const sheet = forPass(plan.sheets[index - 1] as Sheet, which);
    const face = which === 'front' ? sheet.front : backOf(sheet);
    const side = which === 'back' && turned.has(index) ? turnSide(face, sheet.paper) : face;
    return { ...sheet, ...fedBy(sheet, which, refeedTray), front: side };
  });
  const whole = plan.informationSheet && forPass(plan.informationSheet, which);
  const slip = plan.slipBetweenSets && forPass(plan.slipBetweenSets, which);
  const informationSheet = whole && {
    ...whole,
    ...fedBy(whole, which, refeedTray),
    ...(which === 'back' ? { front: backOf(whole), fed: whole.fedForBacks ?? whole.fed } : {}),
  };
  const slipBetweenSets = slip && { ...slip, tray: fedBy(slip, which, refeedTray).tray };
  return { ...plan, sheets, informationSheet, slipBetweenSets, passes: null, delivery: 'first-to-last' };
}

/** What else is asked for a sheet holds for the pass after which it is done; before, all lie on one stack. */
function forPass<T extends object>(sheet: T, which: 'front' | 'back'): T {
  if (which === 'back') return sheet;
  const names: readonly string[] = OF_SHEET.map(({ name }) => name);
  return Object.fromEntries(Object.entries(sheet).filter(([name]) => !names.includes(name))) as T;
}

/** What is the same of all that goes through in a pass: one face, from where its paper lies. */
const fedBy = ({ tray }: Pick<Sheet, 'tray'>, which: 'front' | 'back', refeedTray: string | null) =>
  ({ sides: 'one-sided', back: null, tray: which === 'back' ? (refeedTray ?? tray) : tray }) as const;

const backOf = ({ back, front }: Pick<Sheet, 'front' | 'back'>): Side =>
  back ?? { orientation: front.orientation, cells: [] };

/** A side turned by half a turn: what was at its upper edge is at its lower one. */
function turnSide(side: Side, { width, height }: Sheet['paper']): Side {
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
