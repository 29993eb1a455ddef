import type { Plan, Sheet } from './plan';

type PlanSheets = Omit<Plan, 'checks'>;

/** A sheet of one of the sets, which are counted from 1 in the order of printing. */
export interface SetSheet {
  readonly set: number;
  readonly sheet: Sheet;
}

/** The sheets of one set in the order in which the printer takes paper for them. */
export function printingOrder({ sheets, delivery, passes }: PlanSheets): readonly Sheet[] {
  if (passes) return passes[0].order.map((index) => sheets[index - 1] as Sheet);
  return delivery === 'last-to-first' ? [...sheets].reverse() : sheets;
}

/** Every sheet of the job: complete sets of this order with slips between, or each sheet as often as there are sets. */
export function* everySheet(plan: PlanSheets, order: readonly Sheet[] = printingOrder(plan)): Generator<SetSheet> {
  const { sets, collate, slipBetweenSets } = plan;
  if (!collate && order.length > 1) {
    for (const sheet of order) for (let set = 1; set <= sets; set += 1) yield { set, sheet };
    return;
  }
  for (let set = 1; set <= sets; set += 1) {
    for (const sheet of order) yield { set, sheet };
    if (slipBetweenSets && set < sets) yield { set, sheet: slipSheet(slipBetweenSets) };
  }
}

/** A slip between sets stands in no set, so it has no index there. */
const slipSheet = ({ tray, paper }: NonNullable<Plan['slipBetweenSets']>): Sheet => ({
  index: 0,
  run: 0,
  tray,
  slip: true,
  paper,
  sides: 'one-sided',
  front: { orientation: 'portrait', cells: [] },
  back: null,
});

/**
 * The plan as a printer is given it: the sheets in the order of printing. Where slips lie between sets, which no printer
 * puts there by itself, every set is written out and asked for once.
 */
export function asSent(plan: Plan): Plan {
  if (plan.slipBetweenSets && plan.sets > 1) return writtenOut(plan);
  return { ...plan, sheets: [...printingOrder(plan)], slipBetweenSets: null };
}

/** One set of all the sheets of all the sets, for where copies cannot be left to the printer. */
export function writtenOut(plan: Plan): Plan {
  const sheets = [...everySheet(plan)].map(({ sheet }) => sheet);
  return { ...plan, sheets, sets: 1, collate: true, slipBetweenSets: null };
}
