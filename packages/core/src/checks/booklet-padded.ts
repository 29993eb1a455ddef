import { groupSheets, indexesOf, type CheckRule } from './context';
import { countOf } from './words';

/** A booklet's sheet has room for so many pages. */
const PAGES_ON_SHEET = 4;

/** Blanks added to fill a signature. */
export const bookletPadded: CheckRule = ({ plan }) => {
  const booklets = groupSheets(plan.sheets, (sheet) => (sheet.signature === undefined ? null : 'booklet'));
  const padded = (booklets.get('booklet') ?? []).flatMap((sheet) => {
    const blanks = PAGES_ON_SHEET - sheet.front.cells.length - (sheet.back?.cells.length ?? 0);
    return blanks > 0 ? [{ sheet, blanks }] : [];
  });
  if (padded.length === 0) return [];
  const blanks = padded.reduce((sum, one) => sum + one.blanks, 0);
  const message = `${countOf(blanks, 'blank page')} added, so that every sheet of the booklet is full.`;
  const sheets = indexesOf(padded.map(({ sheet }) => sheet));
  return [{ code: 'booklet-padded', level: 'note', message, sheets, pages: [] }];
};
