import type { CheckContext, CheckRule } from './context';
import { indexesOf } from './context';
import { finishingsOf, holdsTogether, leaveOut, stapledParts } from './finishing';
import { firstThatHelps, withRepair } from './repair';
import { countSheets } from './words';

/** A stapled part has more sheets than the printer staples together. */
export const tooManyToStaple: CheckRule = (context) => {
  const { plan, printer, ticket } = context;
  const [first] = tooThick(context);
  if (!first) return [];
  const most = printer.maxStapled ?? 0;
  const message = `${printer.name} staples up to ${countSheets(most)} together; a ${ticket.finishEach} here has ${first.length}.`;
  const repair = firstThatHelps(context, (changed) => tooThick(changed).length > 0, [
    printer.duplex ? { label: 'Print two-sided', patch: { sides: 'two-sided' } } : null,
    leaveOut(ticket, finishingsOf(plan).filter(holdsTogether)),
  ]);
  return [
    withRepair({ code: 'too-many-to-staple', level: 'stop', message, sheets: indexesOf(first), pages: [] }, repair),
  ];
};

const tooThick = ({ plan, printer }: Pick<CheckContext, 'plan' | 'printer'>) =>
  stapledParts(plan).filter(({ length }) => length > (printer.maxStapled ?? Infinity));
