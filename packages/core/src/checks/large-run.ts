import type { CheckRule } from './context';
import { countOf, countSheets } from './words';

/** More sheets than the limit, so that a stale number of copies is noticed. */
export const largeRun: CheckRule = ({ plan, limit }) => {
  const { sheets, sheetsPerSet } = plan.tally;
  if (sheets <= limit) return [];
  const { sets } = plan;
  const copies = sets === 1 ? '' : `: ${sets} sets of ${countSheets(sheetsPerSet)}`;
  const message = `This prints ${countSheets(sheets)}${copies}.`;
  const slip = plan.slipBetweenSets ? 1 : 0;
  const before = plan.informationSheet ? 1 : 0;
  const few = Math.max(1, Math.floor((limit - before + slip) / (sheetsPerSet + slip)));
  const repair = few < sets ? { label: `Print ${countOf(few, 'set')}`, patch: { copies: few } } : null;
  return [{ code: 'large-run', level: 'caution', message, sheets: [], pages: [], ...(repair ? { repair } : {}) }];
};
