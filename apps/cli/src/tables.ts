import {
  findTray,
  orientationOf,
  pointsToMm,
  matchSize,
  saySize,
  trayName,
  type Plan,
  type Printer,
  type Side,
} from '@foglio/core';
import type { LoadedDocument } from './job-file';

/** What `pages --json` prints for a file. */
export interface FilePages {
  readonly file: string;
  readonly pages: readonly {
    readonly page: number;
    readonly width: number;
    readonly height: number;
    readonly size: string;
    readonly orientation: string;
  }[];
}

/** Page facts as data: sizes in points as read, and the paper each page asks for. */
export function describePages(file: string, document: LoadedDocument): FilePages {
  const pages = document.pages.map(({ width, height }, index) => ({
    page: index + 1,
    width: rounded(width, 3),
    height: rounded(height, 3),
    size: matchSize(width, height).name,
    orientation: orientationOf(width, height),
  }));
  return { file, pages };
}

/** Page facts as a table, a line a page. */
export function pagesTable({ file, pages }: FilePages): string {
  const rows = pages.map(({ page, width, height, size, orientation }) => [
    String(page),
    `${rounded(pointsToMm(width), 1)} × ${rounded(pointsToMm(height), 1)} mm`,
    saySize(size),
    orientation,
  ]);
  const count = pages.length === 1 ? '1 page' : `${pages.length} pages`;
  return `${file}: ${count}\n${table([['page', 'measure', 'paper', 'turned'], ...rows])}`;
}

/** A plan as a list of sheets, then the totals and the checks. */
export function planTable(plan: Plan, printer: Printer | null): string {
  const nameOf = (id: string | null): string => {
    const tray = id !== null && printer ? findTray(printer, id) : null;
    return tray ? trayName(tray) : (id ?? 'no tray');
  };
  const rows = plan.sheets.map((sheet) => [
    String(sheet.index),
    nameOf(sheet.tray),
    saySize(sheet.paper.size),
    saySide(sheet.front),
    sheet.back ? saySide(sheet.back) : 'not printed',
  ]);
  const { tally } = plan;
  const sets = plan.sets === 1 ? '1 set' : `${plan.sets} sets`;
  const lines = [
    table([['sheet', 'tray', 'paper', 'front', 'back'], ...rows]),
    `${tally.sheetsPerSet} sheets a set, ${sets}, ${tally.sheets} sheets in all, ${tally.sides} printed sides`,
    ...Object.entries(tally.byTray).map(([tray, count]) => `${nameOf(tray)}: ${count} sheets`),
    ...plan.checks.map((check) => `${check.level}: ${check.message}`),
  ];
  return lines.join('\n');
}

function saySide(side: Side): string {
  if (side.cells.length === 0) return 'blank';
  return side.cells
    .map((cell) => (cell.document === 1 ? `page ${cell.page}` : `document ${cell.document} page ${cell.page}`))
    .join(', ');
}

/** Columns as wide as their widest entry, two spaces apart. */
function table(rows: readonly (readonly string[])[]): string {
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
