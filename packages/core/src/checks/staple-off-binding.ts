import type { Check, Repair } from '../plan/plan';
import { FINISHINGS, type Finishing } from '../settings/finishing-words';
import { sayFinishing } from '../settings/finishing-said';
import type { CheckContext, CheckRule } from './context';
import { finishingsOf, holdsTogether, insteadOf, isAt, leaveOut } from './finishing';
import { firstThatHelps, withRepair } from './repair';

/** The staple is not where the set is held: a booklet is held at its fold. */
export const stapleOffBinding: CheckRule = (context) => {
  const { ticket, printer } = context;
  const name = offBinding(context);
  if (!name) return [];
  const where = isBooklet(context) ? 'at its fold' : ticket.bind === 'top' ? 'at the top' : `at the ${ticket.bind}`;
  const said = sayFinishing(name);
  const message = `The set is held ${where}, and stapled elsewhere: ${said}.`;
  const inFold: Repair = {
    label: `Take ${sayFinishing('saddle-stitch')}`,
    patch: { finishings: ticket.finishings.map((one) => (one === name ? 'saddle-stitch' : one)) },
  };
  const atEdge = insteadOf(name, context, ['staple']);
  const check: Check = { code: 'staple-off-binding', level: 'caution', message, sheets: [], pages: [] };
  const canStitch = isBooklet(context) && printer.finishings.includes('saddle-stitch');
  const repair = firstThatHelps(context, (changed) => offBinding(changed) !== null, [
    canStitch ? inFold : null,
    atEdge,
    leaveOut(ticket, [name]),
  ]);
  return [withRepair(check, repair)];
};

type Asked = Pick<CheckContext, 'plan' | 'ticket'>;

const isBooklet = ({ plan }: Asked): boolean => plan.sheets.some(({ signature }) => signature !== undefined);

/** Of a staple of which nobody knows where it goes nothing can be said. */
function offBinding(asked: Asked): Finishing | null {
  const name = finishingsOf(asked.plan).find(holdsTogether);
  if (!name) return null;
  const { kind, at } = FINISHINGS[name];
  const isInFold = kind === 'stitch';
  if (isBooklet(asked) || isInFold) return isBooklet(asked) === isInFold ? null : name;
  return at === null || isAt(at, asked.ticket.bind) ? null : name;
}
