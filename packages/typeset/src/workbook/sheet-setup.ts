import type { Worksheet } from 'exceljs';
import type { Form } from '@foglio/core';
import { A4, pageOf, scaleFor } from '../table/form-setup';
import type { Area, Band, TableScale, TableSetup } from '../table/table';
import { columnOf } from './sheet-rows';

/** Paper by the numbers that sheets give it (ECMA-376, 18.3.1.63), as PWG 5101.1 names it. */
const PAPERS: Readonly<Record<number, string>> = {
  1: 'na_letter_8.5x11in',
  3: 'na_ledger_11x17in',
  5: 'na_legal_8.5x14in',
  7: 'na_executive_7.25x10.5in',
  8: 'iso_a3_297x420mm',
  9: A4,
  11: 'iso_a5_148x210mm',
  12: 'jis_b4_257x364mm',
  13: 'jis_b5_182x257mm',
  70: 'iso_a6_105x148mm',
};

const INCH = 72;

/** Margins of a sheet that says none, in inches (common practice of office programs). */
const MARGINS = { left: 0.7, right: 0.7, top: 0.75, bottom: 0.75, header: 0.3, footer: 0.3 } as const;

/** What the file says beside what the library reads. */
export interface SetupBasis {
  readonly sheet: Worksheet;
  /** What stands behind the rows of the sheet's part. */
  readonly tail: string;
  /** Its print area as the workbook names it; null: none. */
  readonly printArea: string | null;
  /** "2026-11-30" */
  readonly today: string;
}

/** How a sheet is printed as its file says, so far as is not asked for otherwise. */
export function setupOfSheet({ sheet, tail, printArea, today }: SetupBasis, form: Form): TableSetup {
  const { pageSetup: setup, headerFooter, views } = sheet;
  const margins = { ...MARGINS, ...setup.margins };
  const orientation = form.orientation ?? (setup.orientation === 'landscape' ? 'landscape' : 'portrait');
  const paper = form.paper ?? PAPERS[setup.paperSize ?? 9] ?? A4;
  const points = Object.fromEntries(Object.entries(margins).map(([edge, inches]) => [edge, inches * INCH]));
  return {
    page: pageOf(paper, orientation),
    mayTurn: form.orientation === undefined,
    margins: points as TableSetup['margins'],
    scale: form.fit ? scaleFor(form.fit) : ownScale(setup),
    areas: form.wholeSheet || printArea === null ? null : areasOf(printArea),
    titleRows: setup.printTitlesRow ? rowsOf(setup.printTitlesRow) : null,
    titleColumns: setup.printTitlesColumn ? columnsOf(setup.printTitlesColumn) : null,
    rowBreaks: breaksIn(tail, 'rowBreaks', 0),
    // A break stands before the column that it names, counted from 0.
    columnBreaks: breaksIn(tail, 'colBreaks', -1),
    downFirst: setup.pageOrder !== 'overThenDown',
    gridLines: form.gridLines ?? setup.showGridLines ?? false,
    headings: form.headings ?? setup.showRowColHeaders ?? false,
    centered: { across: setup.horizontalCentered ?? false, down: setup.verticalCentered ?? false },
    rightToLeft: views?.some((view) => view.rightToLeft) ?? false,
    head: bandOf(headerFooter?.oddHeader, today),
    foot: bandOf(headerFooter?.oddFooter, today),
    rowHeight: sheet.properties.defaultRowHeight || 15,
  };
}

function ownScale({ fitToPage, fitToWidth, fitToHeight, scale }: Worksheet['pageSetup']): TableScale {
  if (!fitToPage) return { kind: 'percent', percent: scale || 100 };
  // Zero stands for however many, and where nothing is said it is one.
  const most = (pages: number | undefined): number | null => (pages === undefined ? 1 : pages || null);
  return { kind: 'pages', wide: most(fitToWidth), tall: most(fitToHeight) };
}

/** "Sheet!$A$1:$D$20", several with commas between them; null where none of them is a range. */
function areasOf(printArea: string): Area[] | null {
  const areas = printArea.split(',').flatMap((area) => rangeOf(area.replace(/^.*!/, '').replaceAll('$', '')) ?? []);
  return areas.length > 0 ? areas : null;
}

/**
 * The print areas that a workbook names, by the places of their sheets from 0 (ECMA-376, 18.2.5). The library mistakes those of
 * whole columns or rows.
 */
export function printAreas(workbook: string): ReadonlyMap<number, string> {
  const areas = new Map<number, string>();
  for (const [, about, text] of workbook.matchAll(/<(?:\w+:)?definedName\b([^>]*)>([^<]*)</g)) {
    const sheet = /\blocalSheetId="(\d+)"/.exec(about!)?.[1];
    if (sheet === undefined || !/\bname="_xlnm\.Print_Area"/.test(about!)) continue;
    // Some programs name each of several areas by itself.
    const before = areas.get(Number(sheet));
    areas.set(Number(sheet), before === undefined ? text! : `${before},${text}`);
  }
  return areas;
}

/** "B2:D20", one cell, whole columns "B:D" or whole rows "2:20", which end nowhere; null where it is none of these. */
export function rangeOf(text: string): Area | null {
  const [from, to = from] = text.split(':');
  const parts = [from, to].map((one) => /^([A-Z]{0,3})(\d*)$/.exec(one ?? ''));
  if (!parts[0]?.[0] || !parts[1]?.[0]) return null;
  const [[, left, top], [, right, bottom]] = parts as [RegExpExecArray, RegExpExecArray];
  return {
    left: left ? columnOf(left) : 0,
    right: right ? columnOf(right) : Infinity,
    top: top ? Number(top) : 1,
    bottom: bottom ? Number(bottom) : Infinity,
  };
}

const rowsOf = (text: string): [number, number] => {
  const [from, to = from] = text.replaceAll('$', '').split(':').map(Number) as [number, number?];
  return [from, to];
};

const columnsOf = (text: string): [number, number] => {
  const [from, to = from] = text.replaceAll('$', '').split(':').map(columnOf) as [number, number?];
  return [from, to];
};

/** Breaks that stand in a sheet (ECMA-376, 18.3.1.73 and 18.3.1.14); the library reads those between rows alone. */
function breaksIn(tail: string, element: 'rowBreaks' | 'colBreaks', shift: number): Set<number> {
  const inside = new RegExp(`<${element}[^>]*>([\\s\\S]*?)</${element}>`).exec(tail)?.[1] ?? '';
  return new Set([...inside.matchAll(/<brk[^>]*\bid="(\d+)"/g)].map(([, id]) => Number(id) + shift));
}

/** A line at head or foot (ECMA-376, 18.3.1.46): its three places, how it is set left out. */
function bandOf(text: string | undefined, today: string): Band | null {
  if (!text) return null;
  const band = { left: '', center: '', right: '' };
  let place: keyof Band = 'center';
  const codes = /&(?:"[^"]*"|K[0-9A-Fa-f]{6}|K\d\d[+-]\d{3}|\d+|.)|[^&]+/gs;
  for (const [code] of text.matchAll(codes)) {
    if (code === '&L') place = 'left';
    else if (code === '&C') place = 'center';
    else if (code === '&R') place = 'right';
    else if (code === '&D') band[place] += today;
    else if (/^&[PNAF&]$/.test(code) || !code.startsWith('&')) band[place] += code;
  }
  const said = { left: band.left.trim(), center: band.center.trim(), right: band.right.trim() };
  return said.left || said.center || said.right ? said : null;
}
