import { formSchema } from '../pages/form.schema';
import { readSizeName } from '../paper/sizes';
import type { Contradiction } from './setting';

/** Carried to whoever lays documents out, and never planned; `pages/laid-out.ts` tells what means something for which kind. */
export const form = {
  schema: { default: {}, ...formSchema },
  carriers: ['document'],
  contradiction: contradictionOf,
} as const;

/** A size has to be readable. */
function contradictionOf({ paper }: { readonly paper?: string }): Contradiction | null {
  if (paper === undefined || (readSizeName(paper)?.width ?? 0) > 0) return null;
  return {
    part: '.paper',
    problem: `"${paper}" is not a PWG 5101.1 size name`,
    repair: 'leave it out or write one like "iso_a4_210x297mm"',
  };
}
