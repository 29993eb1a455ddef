import { facingOf } from '../printer/printer';
import type { CheckRule } from './context';

/** Sheets that lie face up in the output lie there in reverse, unless they were printed so (common practice). */
export const comesOutLastFirst: CheckRule = ({ plan, printer }) => {
  const facingUp = plan.sheets.filter((sheet) => facingOf(printer, sheet) === 'face-up');
  if (facingUp.length < 2 || plan.passes || plan.delivery === 'last-to-first') return [];
  const message = `${printer.name} lays sheets face up, so that the last lies on top.`;
  const repair = { label: 'Print the last sheet first', patch: { delivery: 'last-to-first' } } as const;
  return [{ code: 'comes-out-last-first', level: 'note', message, sheets: [], pages: [], repair }];
};
