import { formFor, laidOut, mmToPoints, type Form, type LaidOut } from '@foglio/core';
import { A4, pageOf, scaleFor } from '../table/form-setup';
import { PADDING } from '../table/measure';
import { READABLE, type Cell, type CellStyle, type Row, type Table } from '../table/table';
import { Typefaces } from '../type/typeface';
import { delimiterOf, hasHeader, isNumeric, recordsOf, withoutSaying } from './guess';
import { encodingOf, lettersOf } from '../text/letters';

/** Points. */
const SIZE = 10;
const MARGIN = mmToPoints(15);
const BAND = mmToPoints(8);

/** A column is as wide as its text, within these; what is longer goes on in the next line. */
const WIDTHS = { least: 24, most: 220 } as const;

/** Records by which the widths of columns are found. */
const MEASURED = 5_000;

const PLAIN: CellStyle = {
  font: {
    family: 'carlito',
    size: SIZE,
    bold: false,
    italic: false,
    underline: false,
    strike: false,
    color: '#000000',
  },
  fill: null,
  across: 'general',
  down: 'top',
  wrap: true,
  indent: 0,
  borders: {},
};

const HEADER: CellStyle = {
  ...PLAIN,
  font: { ...PLAIN.font, bold: true },
  borders: { bottom: { width: 0.75, color: '#000000', dash: null } },
};

/** A table in text as a table, and how it was taken. */
export interface ReadCsv {
  readonly tables: readonly [Table];
  readonly laid: LaidOut;
  readonly remarks: readonly string[];
  /** Whether all records were read. */
  readonly isWhole: boolean;
}

/**
 * Reads a table in text: delimiter, encoding and whether it has a header are guessed where they are not asked for.
 *
 * @param name of its file
 * @param most records that are read
 */
export function readCsv(bytes: Uint8Array, name: string, asked: Form, most = Infinity): ReadCsv {
  const form = formFor('csv', asked);
  const encoding = form.encoding ?? encodingOf(bytes);
  const letters = lettersOf(bytes, encoding);
  const delimiter = form.delimiter ?? delimiterOf(letters);
  const records = recordsOf(withoutSaying(letters), delimiter, most);
  const header = form.header ?? hasHeader(records);
  const rows = records.map((record, at) => rowOf(record, at, header && at === 0));
  const columns = widthsOf(rows);
  const orientation = form.orientation ?? orientationFor(columns, form.paper ?? A4);
  const page = pageOf(form.paper ?? A4, orientation);
  const fit = form.fit ?? fitFor(columns, page.width);
  const guessed: Form = { orientation, fit, delimiter, encoding, header };
  const table: Table = {
    name,
    columns,
    rows,
    merges: [],
    setup: {
      page,
      mayTurn: form.orientation === undefined,
      margins: { left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN, header: BAND, footer: BAND },
      scale: scaleFor(fit),
      areas: null,
      titleRows: header ? [1, 1] : null,
      titleColumns: null,
      rowBreaks: new Set(),
      columnBreaks: new Set(),
      downFirst: false,
      gridLines: form.gridLines ?? true,
      headings: form.headings ?? false,
      centered: { across: false, down: false },
      rightToLeft: false,
      head: null,
      foot: { left: '&F', center: '', right: '&P / &N' },
      rowHeight: SIZE * 1.4,
    },
  };
  return { tables: [table], laid: laidOut('csv', asked, guessed), remarks: [], isWhole: records.length < most };
}

/** Empty fields are no cells. */
function rowOf(record: readonly string[], at: number, isHeader: boolean): Row {
  const cells = record.flatMap((text, column): Cell[] => {
    if (text === '') return [];
    return [{ column, text, style: isHeader ? HEADER : PLAIN, isNumber: !isHeader && isNumeric(text) }];
  });
  return { number: at + 1, height: null, isFixed: false, cells };
}

function widthsOf(rows: readonly Row[]): number[] {
  const typefaces = new Typefaces();
  const widths: number[] = [];
  for (const { cells } of rows.slice(0, MEASURED)) {
    for (const { column, text, style } of cells) {
      const width = Math.max(...text.split('\n').map((line) => typefaces.of(style.font).width(line))) * style.font.size;
      widths[column] = Math.max(widths[column] ?? 0, width);
    }
  }
  // A tenth of a point for what is rounded.
  const room = 2 * PADDING + 0.1;
  return Array.from(widths, (width = 0) => Math.max(WIDTHS.least, Math.min(WIDTHS.most, width + room)));
}

const sum = (widths: readonly number[]): number => widths.reduce((all, one) => all + one, 0);

/** Sideways where upright it would have to be made smaller. */
const orientationFor = (columns: readonly number[], paper: string): NonNullable<Form['orientation']> =>
  sum(columns) <= pageOf(paper, 'portrait').width - 2 * MARGIN ? 'portrait' : 'landscape';

/** All columns on one page, unless that could not be read. */
const fitFor = (columns: readonly number[], width: number): NonNullable<Form['fit']> =>
  ((width - 2 * MARGIN) / sum(columns)) * SIZE >= READABLE ? 'width' : 'readable';
