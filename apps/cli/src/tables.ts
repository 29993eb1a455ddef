import {
  findTray,
  inTwoPasses,
  labelOf,
  listNumbers,
  matchSize,
  orientationOf,
  pointsToMm,
  sayFinishing,
  saySize,
  sectionsOf,
  trayName,
  type AboutDocument,
  type PageFacts,
  type Plan,
  type Printer,
  type Side,
} from '@foglio/core';
import type { LoadedDocument } from './document-file';

/** What `pages --json` prints for a file. */
export interface FilePages {
  readonly file: string;
  /** What the file says of itself: title, author, dates. */
  readonly about: AboutDocument;
  readonly pages: readonly {
    readonly page: number;
    readonly width: number;
    readonly height: number;
    readonly size: string;
    readonly orientation: string;
    /** The page's own Rotate entry, in degrees clockwise. */
    readonly rotation: number;
    /** What is printed on it; its number where it is labelled nothing else. */
    readonly label: string;
    /** The section it is in, counted from 1; of several that share the page the last. Null before the first section. */
    readonly section: number | null;
    readonly color?: boolean;
    readonly looksGray?: boolean;
    readonly blackOfColors?: boolean;
    readonly blank?: boolean;
    /** Points, as it stands on the page; null: no text. */
    readonly smallestText?: number | null;
    /** What is visible: [x, y, width, height] in points from the lower left corner of the page as read. */
    readonly content?: PageFacts['content'];
  }[];
}

/** Page facts as data: sizes in points as read, and the paper each page asks for. */
export function describePages(file: string, document: LoadedDocument): FilePages {
  const sections = sectionsOf(document);
  const sectionOf = (page: number): number | null => {
    const last = sections.findLastIndex(({ from, to }) => from <= page && page <= to);
    return last < 0 ? null : last + 1;
  };
  const pages = document.pages.map((facts, index) => ({
    page: index + 1,
    width: rounded(facts.width, 3),
    height: rounded(facts.height, 3),
    size: matchSize(facts.width, facts.height).name,
    orientation: orientationOf(facts.width, facts.height),
    rotation: facts.rotate ?? 0,
    label: labelOf(facts, index + 1),
    section: sectionOf(index + 1),
    color: facts.color,
    looksGray: facts.looksGray,
    blackOfColors: facts.blackOfColors,
    blank: facts.blank,
    smallestText: facts.smallestText,
    content: facts.content,
  }));
  return { file, about: document.about ?? {}, pages };
}

/** Page facts as a table, a line a page. */
export function pagesTable({ file, about, pages }: FilePages): string {
  const rows = pages.map((one) => [
    String(one.page),
    `${rounded(pointsToMm(one.width), 1)} × ${rounded(pointsToMm(one.height), 1)} mm`,
    saySize(one.size),
    one.orientation,
    one.label,
    one.section === null ? '' : String(one.section),
    sayColor(one),
    one.smallestText == null ? '' : `${rounded(one.smallestText, 1)} pt`,
  ]);
  const count = pages.length === 1 ? '1 page' : `${pages.length} pages`;
  return `${file}: ${count}${sayAbout(about)}\n${table([['page', 'measure', 'paper', 'turned', 'label', 'section', 'holds', 'smallest text'], ...rows])}`;
}

const sayAbout = ({ title, author }: AboutDocument): string =>
  `${title ? `, “${title}”` : ''}${author ? ` by ${author}` : ''}`;

function sayColor({ color, looksGray, blackOfColors, blank }: FilePages['pages'][number]): string {
  if (color === undefined) return '';
  if (blank) return 'nothing';
  if (color) return looksGray ? 'grey coded in colour' : 'colour';
  return blackOfColors ? 'black and grey, black coded in colour' : 'black and grey';
}

/** "each part with a staple at the top left corner; parts begin at sheets 1 and 4"; nothing where nothing is done. */
function sayFinishings({ finishing }: Plan): string[] {
  if (!finishing) return [];
  const { finishings, starts } = finishing;
  const what = finishings.map(sayFinishing).join(' and ');
  if (starts.length === 1) return [`each set with ${what}`];
  return [`each part with ${what}; parts begin at sheets ${listNumbers(starts)}`];
}

/** A plan as a list of sheets, then the totals, the slips, the passes and the checks with what would settle them. */
export function planTable(plan: Plan, printer: Printer | null): string {
  const nameOf = (id: string | null): string => {
    const tray = id !== null && printer ? findTray(printer, id) : null;
    return tray ? trayName(tray) : (id ?? 'no tray');
  };
  const folded = plan.sheets.some((sheet) => sheet.signature !== undefined);
  const rows = plan.sheets.map((sheet) => [
    String(sheet.index),
    nameOf(sheet.tray),
    saySize(sheet.paper.size),
    TURNED_OVER[sheet.sides],
    ...(folded ? [sheet.signature === undefined ? '' : String(sheet.signature)] : []),
    sheet.slip ? 'slip' : saySide(sheet.front),
    sheet.back ? saySide(sheet.back) : 'not printed',
  ]);
  const head = ['sheet', 'tray', 'paper', 'sides', ...(folded ? ['signature'] : []), 'front', 'back'];
  const { tally, slipBetweenSets, informationSheet } = plan;
  const lines = [
    table([head, ...rows]),
    `${counted(tally.sheetsPerSet, 'sheet')} a set, ${counted(plan.sets, 'set')}${plan.collate ? '' : ', not in sets'}, ` +
      `${counted(tally.sheets, 'sheet')} in all, ${counted(tally.sides, 'printed side')}`,
    ...(tally.pieces === null
      ? []
      : [
          `${counted(tally.pieces, 'piece')}${tally.piecesOver ? `, ${tally.piecesOver} of them to fill the last sheet` : ''}`,
        ]),
    ...(informationSheet
      ? [
          `before it an information sheet of ${saySize(informationSheet.paper.size)} from ${nameOf(informationSheet.tray)}`,
        ]
      : []),
    ...(slipBetweenSets
      ? [`between sets a slip of ${saySize(slipBetweenSets.paper.size)} from ${nameOf(slipBetweenSets.tray)}`]
      : []),
    ...sayFinishings(plan),
    ...(plan.delivery === 'last-to-first' ? ['last sheet first'] : []),
    ...Object.entries(tally.byTray).map(([tray, count]) => `${nameOf(tray)}: ${counted(count, 'sheet')}`),
    ...sayPasses(plan),
    ...plan.checks.flatMap((check) => [
      `${check.level}: ${check.message}`,
      ...(check.repair ? [`  to settle it: ${check.repair.label} ${JSON.stringify(check.repair.patch)}`] : []),
    ]),
  ];
  return lines.join('\n');
}

const TURNED_OVER = {
  'one-sided': 'one',
  'two-sided-long-edge': 'long edge',
  'two-sided-short-edge': 'short edge',
} as const;

const HANDLING = {
  'as-it-lies': 'put the stack in as it lies',
  'turn-over': 'turn the stack over and put it in',
} as const;

/** What a person does by hand on a printer without a duplex unit. */
function sayPasses(plan: Plan): string[] {
  const both = inTwoPasses(plan);
  if (!both) return (plan.passes ?? []).flatMap((pass) => sayAlone(pass));
  const [fronts, backs] = both;
  const turned = sayTurned(backs);
  return [
    `first pass, fronts of sheets ${listNumbers(fronts.order)}`,
    `then ${HANDLING[backs.handling]}`,
    `second pass, backs of sheets ${listNumbers(backs.order)}${turned}`,
  ];
}

type Pass = NonNullable<Plan['passes']>[number];
type BackPass = Extract<Pass, { readonly side: 'back' }>;

const sayTurned = ({ turned }: BackPass): string => (turned.length > 0 ? `, upside down: ${listNumbers(turned)}` : '');

/** One of the two passes alone, as the ticket asks for it. */
function sayAlone(pass: Pass): string[] {
  if (pass.side === 'front') return [`fronts alone, of sheets ${listNumbers(pass.order)}`];
  return [HANDLING[pass.handling], `backs alone, of sheets ${listNumbers(pass.order)}${sayTurned(pass)}`];
}

function saySide(side: Side): string {
  if (side.cells.length === 0) return 'blank';
  return side.cells
    .map((cell) => (cell.document === 1 ? `page ${cell.page}` : `document ${cell.document} page ${cell.page}`))
    .join(', ');
}

const counted = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;

/** Columns as wide as their widest entry, two spaces apart. */
export function table(rows: readonly (readonly string[])[]): string {
  const widths = (rows[0] ?? []).map((_, column) => Math.max(...rows.map((row) => (row[column] ?? '').length)));
  return rows
    .map((row) =>
      row
        .map((entry, column) => entry.padEnd(widths[column] ?? 0))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}

const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));
