import type { FamilyName } from '../type/typeface';

/** A table to be laid out: what a sheet of a workbook and a table in text have in common. Lengths in points. */
export interface Table {
  readonly name: string;
  /** Of every column from the first, 0 where it is hidden. */
  readonly columns: readonly number[];
  /** Those that hold anything or have a height of their own, in order; the hidden ones are not among them. */
  readonly rows: readonly Row[];
  readonly merges: readonly Area[];
  readonly setup: TableSetup;
}

export interface Row {
  /** From 1. */
  readonly number: number;
  /** Null: as high as its text needs. */
  readonly height: number | null;
  /** Its height is kept even where its text needs more. */
  readonly isFixed: boolean;
  /** Given up once they are drawn. */
  readonly cells: Cell[];
}

export interface Cell {
  /** From 0. */
  readonly column: number;
  readonly text: string;
  readonly style: CellStyle;
  /** A number, a date, or whatever else is worth nothing if a part of it is missing. */
  readonly isNumber: boolean;
  /** Of its number's format, where that has one; otherwise its style's. */
  readonly color?: string;
}

export interface CellFont {
  readonly family: FamilyName;
  readonly size: number;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly underline: boolean;
  readonly strike: boolean;
  /** "#rrggbb" */
  readonly color: string;
}

export interface Border {
  readonly width: number;
  readonly color: string;
  readonly dash: readonly number[] | null;
}

export const EDGES = ['left', 'top', 'right', 'bottom'] as const;
export type Edge = (typeof EDGES)[number];

export interface CellStyle {
  readonly font: CellFont;
  readonly fill: string | null;
  /** "general": numbers to the right, all else to the left. */
  readonly across: 'general' | 'left' | 'center' | 'right';
  readonly down: 'top' | 'middle' | 'bottom';
  readonly wrap: boolean;
  readonly indent: number;
  readonly borders: Readonly<Partial<Record<Edge, Border>>>;
}

/** Rows from 1, columns from 0, both ends within; one that ends nowhere goes as far as anything is held. */
export interface Area {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** How large a table comes out. */
export type TableScale =
  | { readonly kind: 'percent'; readonly percent: number }
  /** Made smaller until it takes no more pages than these; null: however many. */
  | { readonly kind: 'pages'; readonly wide: number | null; readonly tall: number | null }
  /** The fewest pages on which its smallest text is {@link READABLE} points high. */
  | { readonly kind: 'readable' };

/** Points; below it text is hard to read (common practice). */
export const READABLE = 7;

/** A line at the head or foot of a page, in three places; `&P`, `&N`, `&A`, `&F` stand for page, pages, sheet and file. */
export interface Band {
  readonly left: string;
  readonly center: string;
  readonly right: string;
}

export interface TableSetup {
  /** Of a page, upright or sideways as it is wanted. */
  readonly page: { readonly width: number; readonly height: number };
  /** Whether it may be turned where that makes it easier to read. */
  readonly mayTurn: boolean;
  /** `header` and `footer` are how far those lines stand from the paper's edge. */
  readonly margins: Readonly<Record<Edge | 'header' | 'footer', number>>;
  readonly scale: TableScale;
  /** What of the table is printed, each part on pages of its own; null: all that holds anything. */
  readonly areas: readonly Area[] | null;
  /** On every page: rows and columns, both ends within. */
  readonly titleRows: readonly [number, number] | null;
  readonly titleColumns: readonly [number, number] | null;
  /** A new page begins after these. */
  readonly rowBreaks: ReadonlySet<number>;
  readonly columnBreaks: ReadonlySet<number>;
  /** Whether the pages go down before they go to the next columns. */
  readonly downFirst: boolean;
  readonly gridLines: boolean;
  readonly headings: boolean;
  readonly centered: { readonly across: boolean; readonly down: boolean };
  readonly rightToLeft: boolean;
  readonly head: Band | null;
  readonly foot: Band | null;
  /** Height of a row that says none. */
  readonly rowHeight: number;
}
