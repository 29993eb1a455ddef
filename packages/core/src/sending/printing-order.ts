import type { Plan, Sheet } from '../plan/plan';
import type { Printer } from '../printer/printer';
import { makesSets } from './makes-sets';
import { turnSide } from './turn-side';

type PlanSheets = Omit<Plan, 'checks'>;

/** A sheet of one of the sets, which are counted from 1 in the order of printing. */
export interface SetSheet {
  readonly set: number;
  readonly sheet: Sheet;
}

/** The sheets of one set in the order in which the printer takes paper for them. */
export function printingOrder({ sheets, delivery, passes }: PlanSheets): readonly Sheet[] {
  if (passes?.length === 1) {
    const [pass] = passes;
    const turned = new Set(pass.side === 'back' ? pass.turned : []);
    return pass.order.map((index) => {
      const sheet = sheets[index - 1] as Sheet;
      return turned.has(index) ? { ...sheet, front: turnSide(sheet.front, sheet.paper) } : sheet;
    });
  }
  if (passes) return passes[0].order.map((index) => sheets[index - 1] as Sheet);
  return delivery === 'last-to-first' ? [...sheets].reverse() : sheets;
}

/** Every sheet of the job: complete sets of this order with slips between, or each sheet as often as there are sets. */
export function* everySheet(plan: PlanSheets, order: readonly Sheet[] = printingOrder(plan)): Generator<SetSheet> {
  const { sets, collate } = plan;
  const information = informationSheetOf(plan);
  const slip = slipOf(plan);
  if (information && plan.informationSheet?.fed === 'first') yield { set: 1, sheet: information };
  if (!collate && order.length > 1) {
    for (const sheet of order) for (let set = 1; set <= sets; set += 1) yield { set, sheet };
  } else {
    for (let set = 1; set <= sets; set += 1) {
      for (const sheet of order) yield { set, sheet };
      if (slip && set < sets) yield { set, sheet: slip };
    }
  }
  if (information && plan.informationSheet?.fed === 'last') yield { set: sets, sheet: information };
}

type Outside = Pick<Plan, 'informationSheet' | 'slipBetweenSets'>;

/** What is fed beside the sheets of the sets: such a sheet stands in no set, so it has no number there. */
export const outsideSets = (plan: Outside): Sheet[] =>
  [informationSheetOf(plan), slipOf(plan)].filter((sheet) => sheet !== null);

/** The sheet before the job. */
export function informationSheetOf({ informationSheet }: Outside): Sheet | null {
  if (!informationSheet) return null;
  const { fed: _, fedForBacks: __, ...sheet } = informationSheet;
  return { index: 0, run: 0, slip: false, ...sheet };
}

/** Whether a sheet is the one before the job. */
export const isInformationSheet = ({ index, slip }: Pick<Sheet, 'index' | 'slip'>): boolean => index === 0 && !slip;

/** A slip between sets; it has no number. */
export function slipOf({ slipBetweenSets }: Outside): Sheet | null {
  if (!slipBetweenSets) return null;
  const front: Sheet['front'] = { orientation: 'portrait', cells: [] };
  return { index: 0, run: 0, slip: true, sides: 'one-sided', front, back: null, ...slipBetweenSets };
}

/** A plan of these sheets and nothing beside them. */
export const partOf = <P extends PlanSheets>(plan: P, sheets: readonly Sheet[]): P => ({
  ...plan,
  sheets: [...sheets],
  slipBetweenSets: null,
  informationSheet: null,
});

/**
 * The plan as a printer is given it: the sheets in the order of printing. Where something lies between or before sets,
 * which no printer puts there by itself, or this one does not make them, every set is written out and asked for once.
 */
export function asSent(plan: Plan, printer: Printer): Plan {
  const isLeftToIt = plan.sets > 1 && outsideSets(plan).length === 0 && makesSets(plan, printer);
  return isLeftToIt ? partOf(plan, printingOrder(plan)) : writtenOut(plan);
}

/** One set of all the sheets of all the sets, for where copies cannot be left to the printer. */
export const writtenOut = (plan: Plan): Plan => ({
  ...partOf(
    plan,
    [...everySheet(plan)].map(({ sheet }) => sheet),
  ),
  sets: 1,
  collate: plan.sets > 1 ? true : plan.collate,
});
