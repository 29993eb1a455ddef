import { isBilledAsColor, looksGray } from '../printer/billing';
import { pagesInColor } from './colored-pages';
import type { CheckRule } from './context';
import { changePages } from './repair';
import { countOf } from './words';

/** A page looks grey but is coded in colour, or in black that this printer bills as colour. */
export const grayCodedAsColor: CheckRule = (context) => {
  if (!context.printer.color) return [];
  const { prices } = context.printer;
  const pages = pagesInColor(context, (facts) => looksGray(facts) && isBilledAsColor(facts, prices));
  if (pages.length === 0) return [];
  const looks = pages.length === 1 ? 'looks grey but is' : 'look grey but are';
  const message = `${countOf(pages.length, 'page')} ${looks} coded in colour, and billed as colour.`;
  const label = pages.length === 1 ? 'Print this page in grey' : 'Print these pages in grey';
  const repair = { label, patch: changePages(context, pages, { color: 'monochrome' }) };
  return [{ code: 'gray-coded-as-color', level: 'note', message, sheets: [], pages, repair }];
};
