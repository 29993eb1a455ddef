import type { CheckRule } from './context';

/** More than one copy of more than one sheet, not in sets. */
export const uncollated: CheckRule = ({ plan }) => {
  const { sheetsPerSet } = plan.tally;
  if (plan.collate || plan.sets < 2 || sheetsPerSet < 2) return [];
  const message = `The copies do not come in sets: ${plan.sets} times sheet 1, then ${plan.sets} times sheet 2, and so on.`;
  const repair = { label: 'Print complete sets', patch: { collate: true } };
  return [{ code: 'uncollated', level: 'caution', message, sheets: [], pages: [], repair }];
};
