import { inTwoPasses } from '../planning/passes';
import { OF_SHEET } from '../settings';
import type { Plan, Sheet, Side } from '../plan/plan';
import { turnSide } from './turn-side';

/**
 * One of the two passes as a plan of its own: the sheets in its order, one-sided, each with the face that this pass prints.
 * A face of the second pass that must lie the other way up is turned on its side (model, Two passes).
 *
 * @param refeedTray where the stack goes back in, which the second pass then takes its paper from
 */
export function passPlan(plan: Plan, which: 'front' | 'back', refeedTray: string | null): Plan {
  const passes = inTwoPasses(plan);
  if (!passes) return plan;
  const [fronts, backs] = passes;
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
  const { finishing: _, ...rest } = plan;
  return { ...rest, sheets, informationSheet, slipBetweenSets, passes: null, delivery: 'first-to-last' };
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
