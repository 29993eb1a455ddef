import { countSheets, type CheckRule } from './context';

/** More sheets than the limit, so that a stale number of copies is noticed. */
export const largeRun: CheckRule = ({ plan, limit }) => {
  const { sheets, sheetsPerSet } = plan.tally;
  if (sheets <= limit) return [];
  const copies = plan.sets === 1 ? '' : `: ${plan.sets} sets of ${countSheets(sheetsPerSet)}`;
  return [
    {
      code: 'large-run',
      level: 'caution',
      message: `This prints ${countSheets(sheets)}${copies}.`,
      sheets: [],
      pages: [],
    },
  ];
};
