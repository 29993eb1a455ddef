import type { DocumentFacts } from '../pages/facts';
import { findTray, trayName, type Printer } from '../printer/printer';
import { saySize } from '../paper/sizes';
import type { Cell, Plan, Side } from '../plan/plan';

/** What the columns of a sheet list are called. */
export const SHEET_LIST_HEAD = [
  'Sheet',
  'Tray',
  'Paper',
  'Paper type',
  'Orientation',
  'Sides',
  'Front',
  'Back',
  'Scale in percent',
] as const;

const SIDES = {
  'one-sided': 'one-sided',
  'two-sided-long-edge': 'two-sided, turned along the long edge',
  'two-sided-short-edge': 'two-sided, turned along the short edge',
} as const;

/** The sheets of one set, a row each, in the order they come out; what is on a side as "1, 2", with the document where there are several. */
export function sheetList(
  plan: Pick<Plan, 'sheets'>,
  documents: readonly DocumentFacts[],
  printer: Printer,
): string[][] {
  const sayCell = ({ document, page }: Cell): string =>
    documents.length === 1 ? String(page) : `${documents[document - 1]?.name ?? document} ${page}`;
  const saySide = ({ cells }: Side): string => cells.map(sayCell).join(', ');
  return plan.sheets.map(({ index, tray, paper, sides, slip, front, back }) => {
    const from = tray === null ? null : findTray(printer, tray);
    const scales = [...front.cells, ...(back?.cells ?? [])].map(({ scale }) => Math.round(scale * 100));
    return [
      String(index),
      from ? trayName(from) : (tray ?? ''),
      saySize(paper.size),
      from?.type ?? '',
      front.orientation,
      SIDES[sides],
      slip ? 'blank slip' : saySide(front),
      back ? saySide(back) : '',
      [...new Set(scales)].join(', '),
    ];
  });
}
