import type { Worksheet } from 'exceljs';
import { formFor, laidOut, type Form, type LaidOut, type SheetFound } from '@foglio/core';
import { damagedDocument, unfitForm } from '@foglio/pdf';
import type { Cell, CellStyle, Row, Table } from '../table/table';
import { cellText, NOT_CALCULATED } from './cell-text';
import { readStyle, type ReadStyle } from './cell-styles';
import { themeColors } from './colors';
import { textOf, unpack } from '../office/package-parts';
import { sharedStrings } from './shared-strings';
import { sheetRows, type RawRow } from './sheet-rows';
import { printAreas, rangeOf, setupOfSheet } from './sheet-setup';
import { isOfSkeleton, readSkeleton } from './skeleton';
import { remarksOnLeftOut } from './left-out';

/** A workbook as tables, and how it was taken. */
export interface ReadWorkbook {
  readonly tables: readonly Table[];
  readonly laid: LaidOut;
  readonly remarks: readonly string[];
  /** Whether all rows of these sheets were read. */
  readonly isWhole: boolean;
}

/** Pixels that a digit of the usual font takes, and of an inch (ECMA-376, 18.3.1.13, for its font of 11 points). */
const DIGIT = 7;
const POINTS_A_PIXEL = 0.75;

/** Letters of a column that says nothing (common practice: 64 pixels). */
const USUAL_WIDTH = 9.140625;

/**
 * Reads a workbook: the sheets that are asked for, otherwise all that are not hidden.
 *
 * @param today for lines that tell the day: "2026-11-30"
 * @param most rows of each sheet that are read
 * @throws PdfError where it cannot be read, or has no such sheet
 */
export async function readWorkbook(
  bytes: Uint8Array,
  asked: Form,
  today: string,
  most = Infinity,
): Promise<ReadWorkbook> {
  const form = formFor('workbook', asked);
  const { parts, names } = unpack(bytes, isOfSkeleton);
  const { workbook, styles } = await readSkeleton(parts);
  const sheets = sheetsOf(parts, workbook.worksheets);
  const found = sheets.map(({ name, hidden }): SheetFound => ({ name, hidden }));
  const wanted = wantedOf(sheets, form);
  const theme = themeColors(textOf(parts[names.find((name) => /^xl\/theme\/theme\d*\.xml$/.test(name)) ?? '']));
  const basis: SheetBasis = {
    strings: sharedStrings(parts['xl/sharedStrings.xml']),
    styles: styles.map((style) => readStyle(style, theme)),
    is1904: workbook.properties.date1904 ?? false,
    form,
    today,
    most,
  };
  const read = wanted.map((sheet) => readSheet(sheet, basis));
  const own = { sheets: wanted.map(({ name }) => name), ...ownOf(read.map(({ table }) => table)) };
  return {
    tables: read.map(({ table }) => table),
    laid: { ...laidOut('workbook', asked, own), sheets: found },
    remarks: [...remarksOnLeftOut(names, wanted), ...remarksOnCells(read)],
    isWhole: read.every((one) => one.isWhole),
  };
}

/** A sheet of cells, with its part of the file. */
export interface SheetOfFile extends SheetFound {
  readonly part: Uint8Array;
  readonly sheet: Worksheet;
  /** What stands behind its rows. */
  readonly tail: string;
  /** As the workbook names it; null: none. */
  readonly printArea: string | null;
}

/** The sheets in the workbook's order, each with the part that its relation leads to. */
function sheetsOf(parts: Readonly<Record<string, Uint8Array>>, worksheets: readonly Worksheet[]): SheetOfFile[] {
  const rels = textOf(parts['xl/_rels/workbook.xml.rels']);
  const targets = new Map(
    [...rels.matchAll(/<Relationship\b[^>]*>/g)].map(([one]) => [attribute(one, 'Id'), attribute(one, 'Target')]),
  );
  const workbook = textOf(parts['xl/workbook.xml']);
  const areas = printAreas(workbook);
  const listed = [...workbook.matchAll(/<(?:\w+:)?sheet\b[^>]*>/g)];
  const sheets = listed.flatMap(([one], at): SheetOfFile[] => {
    const target = targets.get(attribute(one, 'r:id'))?.replace(/^\/?(xl\/)?/, 'xl/');
    const sheet = worksheets.find(({ id }) => String(id) === attribute(one, 'sheetId'));
    const part = target === undefined ? undefined : parts[target];
    if (!part || !sheet) return [];
    return [
      {
        name: sheet.name,
        hidden: sheet.state !== 'visible',
        part,
        sheet,
        tail: tailOf(part),
        printArea: areas.get(at) ?? null,
      },
    ];
  });
  if (sheets.length === 0) throw damagedDocument('it has no sheet of cells');
  return sheets;
}

const attribute = (element: string, name: string): string =>
  new RegExp(`\\b${name}="([^"]*)"`).exec(element)?.[1] ?? '';

function tailOf(part: Uint8Array): string {
  const bytes = Buffer.from(part.buffer, part.byteOffset, part.length);
  return bytes.subarray(Math.max(0, bytes.lastIndexOf('</sheetData>'))).toString();
}

function wantedOf(sheets: readonly SheetOfFile[], { sheets: names }: Form): SheetOfFile[] {
  const all = sheets.map(({ name }) => `“${name}”`).join(', ');
  if (!names) {
    const shown = sheets.filter(({ hidden }) => !hidden);
    return shown.length > 0 ? shown : [...sheets];
  }
  return names.map((name) => {
    const found = sheets.find((sheet) => sheet.name === name);
    if (!found) throw unfitForm(`it has no sheet “${name}”, but ${all}`, 'Choose among its sheets.');
    return found;
  });
}

interface SheetBasis {
  readonly strings: readonly string[];
  readonly styles: readonly ReadStyle[];
  readonly is1904: boolean;
  readonly form: Form;
  readonly today: string;
  readonly most: number;
}

interface ReadSheet {
  readonly table: Table;
  readonly isWhole: boolean;
  /** Cells of formulas without a value. */
  readonly uncalculated: readonly string[];
  readonly hasTurned: boolean;
}

function readSheet({ name, part, sheet, tail, printArea }: SheetOfFile, basis: SheetBasis): ReadSheet {
  const { form, today, most } = basis;
  const uncalculated: string[] = [];
  let hasTurned = false;
  const toRow = ({ number, height, isFixed, isHidden, cells }: RawRow): Row => {
    if (isHidden && !form.hidden) return { number, height: 0, isFixed: true, cells: [] };
    const shown = cells.flatMap((cell): Cell[] => {
      const { style, format, isTurned } = basis.styles[cell.style] ?? basis.styles[0]!;
      const said = cellText(cell, { ...basis, pattern: format });
      if (said.text === NOT_CALCULATED && cell.isFormula) uncalculated.push(`${said.text}`);
      if (said.text === '' && !isSeen(style)) return [];
      if (isTurned && said.text !== '') hasTurned = true;
      return [{ column: cell.column, style: forKind(style, cell.type, said.text), ...said }];
    });
    return { number, height, isFixed, cells: shown };
  };
  const { rows, isWhole } = sheetRows(part, name, most, toRow);
  const merges = ((sheet.model as { merges?: readonly string[] }).merges ?? []).flatMap((one) => rangeOf(one) ?? []);
  const last = rows.reduce((most, { cells }) => Math.max(most, cells.at(-1)?.column ?? 0), 0);
  const right = merges.reduce((most, area) => Math.max(most, area.right), last);
  const table: Table = {
    name,
    columns: Array.from({ length: right + 1 }, (_, at) => widthOf(sheet, at, form.hidden ?? false)),
    rows,
    merges,
    setup: setupOfSheet({ sheet, tail, printArea, today }, form),
  };
  return { table, isWhole, uncalculated, hasTurned };
}

/** Whether an empty cell shows anything. */
const isSeen = ({ fill, borders }: CellStyle): boolean => fill !== null || Object.keys(borders).length > 0;

const CENTERED = new Map<CellStyle, CellStyle>();

/** Yes, no and errors stand in the middle where nothing is said (common practice). */
function forKind(style: CellStyle, type: string, text: string): CellStyle {
  if (text === '' || style.across !== 'general' || (type !== 'b' && type !== 'e')) return style;
  const known = CENTERED.get(style) ?? { ...style, across: 'center' as const };
  CENTERED.set(style, known);
  return known;
}

/** Of a column, in points. */
function widthOf(sheet: Worksheet, at: number, withHidden: boolean): number {
  const column = sheet.getColumn(at + 1);
  if (column.hidden && !withHidden) return 0;
  const letters = column.width ?? sheet.properties.defaultColWidth ?? USUAL_WIDTH;
  return Math.trunc(((256 * letters + Math.trunc(128 / DIGIT)) / 256) * DIGIT) * POINTS_A_PIXEL;
}

/** What the sheets say themselves, where they all say the same. */
function ownOf(tables: readonly Table[]): Form {
  const setups = tables.map(({ setup }) => setup);
  const same = <T>(of: (setup: Table['setup']) => T): T | undefined => {
    const values = new Set(setups.map(of));
    return values.size === 1 ? [...values][0] : undefined;
  };
  const orientation = same(({ page }): Form['orientation'] => (page.width > page.height ? 'landscape' : 'portrait'));
  const fit = same(({ scale }): Form['fit'] => {
    if (scale.kind === 'readable') return 'readable';
    if (scale.kind === 'percent') return scale.percent === 100 ? 'actual' : undefined;
    return scale.wide === 1 ? (scale.tall === 1 ? 'page' : scale.tall === null ? 'width' : undefined) : undefined;
  });
  return { ...(orientation ? { orientation } : {}), ...(fit ? { fit } : {}) };
}

function remarksOnCells(read: readonly ReadSheet[]): string[] {
  const missing = read.reduce((sum, { uncalculated }) => sum + uncalculated.length, 0);
  const turned = read.filter(({ hasTurned }) => hasTurned).map(({ table }) => `“${table.name}”`);
  return [
    ...(missing > 0
      ? [
          `${missing === 1 ? 'One formula has' : `${missing} formulas have`} no value in the file and print as “${NOT_CALCULATED}”; open the workbook where it was made and save it.`,
        ]
      : []),
    ...(turned.length > 0 ? [`Turned text prints level (${turned.join(', ')}).`] : []),
  ];
}
