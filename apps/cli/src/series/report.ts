import { extname } from 'node:path';
import {
  REPORT_HEAD,
  reportRows,
  reportSummary,
  seriesTally,
  whyUnfit,
  type Printer,
  type ReportEntry,
} from '@foglio/core';
import { writeReport } from '@foglio/pdf';
import { stringify } from 'csv-stringify/sync';
import { InputError } from '../input-error';
import { table } from '../tables';
import type { Journal } from './journal';
import { isFit, type OpenRow, type Row } from './row';

/** What each file comes to and the paper needed, as a table and lines. */
export function planSummary(rows: readonly OpenRow[], printer: Printer | null): string {
  const outcomes = rows.map(({ outcome }) => outcome);
  const sheets = outcomes.reduce((sum, { tally }) => sum + (tally?.sheets ?? 0), 0);
  const trays = printer ? seriesTally(outcomes, printer).trays : [];
  const lines = rows.map(({ name, pages, outcome }, at) => [
    String(at + 1),
    name,
    pages === null ? '' : String(pages),
    outcome.tally ? String(outcome.tally.sheets) : '',
    whyUnfit(outcome) ?? outcome.checks[0]?.message ?? '',
  ]);
  return [
    table([['no.', 'file', 'pages', 'sheets', 'to settle or know'], ...lines]),
    `${outcomes.filter(({ tally }) => tally !== null).length} of ${rows.length} files, ${sheets} sheets`,
    ...trays.map(
      ({ name, needed, loaded }) => `${name}: ${needed} sheets${loaded === null ? '' : ` of ${loaded} loaded`}`,
    ),
  ].join('\n');
}

/** What became of each file. */
export const entriesOf = (rows: readonly Row[], journal: Journal | null): ReportEntry[] =>
  rows.map((row) => {
    const note = journal?.of({ file: row.path, sha256: row.sha256 }) ?? null;
    return {
      file: row.name,
      pages: row.pages,
      sheets: note?.sheets ?? row.outcome?.tally?.sheets ?? null,
      delivered: note?.delivered ?? 0,
      outcome: note?.outcome ?? (isFit(row) ? 'not sent' : 'left out'),
      printerJobs: note?.jobs ?? [],
      at: note?.at ?? null,
      remark: note?.remark ?? (row.outcome && whyUnfit(row.outcome)),
    };
  });

/** The report as a file: CSV (RFC 4180) or PDF, as its name ends. @throws InputError where it ends otherwise */
export async function reportFile(path: string, title: string, entries: readonly ReportEntry[]): Promise<Uint8Array> {
  const rows = reportRows(entries);
  if (extname(path).toLowerCase() === '.pdf') {
    return writeReport({
      title,
      lines: [`${reportSummary(entries)}.`],
      head: REPORT_HEAD,
      rows,
      wide: ['File', 'Remark'],
    });
  }
  requireKind(path);
  const csv = stringify([[...REPORT_HEAD], ...rows], { bom: true, record_delimiter: 'windows', escape_formulas: true });
  return new TextEncoder().encode(csv);
}

/** @throws InputError where a report cannot be of that kind */
export function requireKind(path: string): void {
  if (!/\.(csv|pdf)$/i.test(path)) throw new InputError('--report', `"${path}" is neither .csv nor .pdf; end it so`);
}
