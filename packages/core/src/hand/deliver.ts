import { facingOf, type Printer } from '../printer/printer';
import type { Plan, Sheet, Side } from '../plan/plan';
import { inTwoPasses, type TwoPasses } from '../planning/passes';
import { everySheet } from '../sending/printing-order';

/**
 * One printed face of a piece of paper. `turned`: its upper edge, in the portrait frame, lies at the opposite edge of the
 * paper to that of the front.
 */
export interface Face {
  readonly sheet: Sheet;
  readonly which: 'front' | 'back';
  readonly side: Side;
  readonly turned: boolean;
}

/** A sheet as it lies in the output: what is printed on its upper and on its lower face, null where nothing was. */
export interface DeliveredSheet {
  /** Counted from 1, in the order of delivery. */
  readonly set: number;
  readonly sheet: Sheet;
  /** Which of its faces is up: the front or the back. */
  readonly up: 'front' | 'back';
  readonly upper: Face | null;
  readonly lower: Face | null;
}

/**
 * Plays a plan: yields the sheets of all sets, slips included, in the order in which they leave the printer, each with
 * the face that lies up. Every sheet falls on the one before it. In two passes, the paper that leaves the second one.
 *
 * The face printed last lies as the printer `delivers`; a duplex unit prints the front last (common practice), so that a
 * printer that delivers face-down gives a stack that is in order when it is picked up and turned over.
 */
export function* deliver(plan: Omit<Plan, 'checks'>, printer: Printer): Generator<DeliveredSheet> {
  const passes = inTwoPasses(plan);
  if (passes) {
    yield* deliverTwice(plan, passes, printer);
    return;
  }
  for (const { sheet, set } of everySheet(plan)) {
    const front = faceOf(sheet, 'front', false);
    const back = sheet.back ? faceOf(sheet, 'back', sheet.sides === 'two-sided-short-edge') : null;
    yield facingOf(printer, sheet) === 'face-up'
      ? { set, sheet, up: 'front', upper: front, lower: back }
      : { set, sheet, up: 'back', upper: back, lower: front };
  }
}

const faceOf = (sheet: Sheet, which: Face['which'], turned: boolean): Face => ({
  sheet,
  which,
  side: which === 'front' ? sheet.front : (sheet.back ?? { orientation: sheet.front.orientation, cells: [] }),
  turned,
});

/** A piece of paper on its way: whichever face is up at the moment. */
interface Paper {
  upper: Face | null;
  lower: Face | null;
  readonly set: number;
}

/**
 * The two passes as hands and printer perform them: every pass takes the uppermost sheet of its stack, prints the face it
 * prints on, and lays the sheet on the output with the face just printed as it delivers.
 */
function* deliverTwice(
  plan: Omit<Plan, 'checks'>,
  [fronts, backs]: TwoPasses,
  printer: Printer,
): Generator<DeliveredSheet> {
  const inOrder = (order: readonly number[]): Sheet[] => order.map((index) => plan.sheets[index - 1] as Sheet);
  const blank = [...everySheet(plan, inOrder(fronts.order))];
  const afterFronts = blank.map(({ sheet, set }) =>
    pass({ upper: null, lower: null, set }, faceOf(sheet, 'front', false), printer),
  );
  const turnedOver = backs.handling === 'turn-over';
  const stack = turnedOver ? afterFronts.map(flip).reverse() : afterFronts;
  const turned = new Set(backs.turned);
  const informationSheet = plan.informationSheet && {
    ...plan.informationSheet,
    fed: plan.informationSheet.fedForBacks ?? plan.informationSheet.fed,
  };
  for (const { sheet } of everySheet({ ...plan, informationSheet }, inOrder(backs.order))) {
    const paper = stack.pop() as Paper;
    const delivers = facingOf(printer, sheet);
    const { upper, lower, set } = pass(paper, faceOf(sheet, 'back', turned.has(sheet.index)), { ...printer, delivers });
    const front = upper?.which === 'front' ? upper : lower;
    yield { set, sheet: (front as Face).sheet, up: upper?.which === 'front' ? 'front' : 'back', upper, lower };
  }
}

const flip = ({ upper, lower, set }: Paper): Paper => ({ upper: lower, lower: upper, set });

/** One sheet through the printer; a face printed twice would lose what was on it, as on paper it would be spoilt. */
function pass(paper: Paper, face: Face, { printsOn, delivers }: Printer): Paper {
  const printed = printsOn === 'upper' ? { ...paper, upper: face } : { ...paper, lower: face };
  const faceIsUp = printsOn === 'upper';
  return faceIsUp === (delivers === 'face-up') ? printed : flip(printed);
}
