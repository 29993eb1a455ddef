import type { SendingState } from '@foglio/api';
import { REPORT_HEAD, reportRows, reportSummary, type ReportEntry } from '@foglio/core';
import { writeReport } from '@foglio/pdf';
import type { Database } from '../database/connection';
import type { StoredDocument } from '../jobs/job-store';
import { findPrinter } from '../printers/printer-store';
import { documentsOfRows, rowsOf, type StoredRow, type StoredSeries } from './series-store';

const OUTCOMES: Readonly<Record<SendingState, string>> = {
  queued: 'waiting',
  sending: 'being sent',
  printing: 'being printed',
  held: 'held',
  turning: 'being turned',
  proofed: 'one set delivered',
  completed: 'delivered',
  canceled: 'cancelled',
  aborted: 'broken off',
  failed: 'not printed',
  interrupted: 'interrupted',
  uncertain: 'not certain',
};

/** What became of each file of a series, by the printer's own count. */
export async function reportOf(db: Database, one: StoredSeries): Promise<ReportEntry[]> {
  const rows = await rowsOf(db, one);
  const known = await documentsOfRows(db, rows);
  return rows.map((row) => entryOf(row, known));
}

function entryOf({ row, job, sending }: StoredRow, known: ReadonlyMap<string, StoredDocument>): ReportEntry {
  const document = known.get(job?.ticket.documents[0]?.file ?? '');
  return {
    file: row.name,
    pages: document?.pages.length ?? null,
    sheets: sending?.sheets ?? null,
    delivered: sending?.sheetsDone ?? 0,
    outcome: sending ? OUTCOMES[sending.state] : row.skipped ? 'left out' : 'not sent',
    printerJobs: sending?.printerJobs ?? [],
    at: sending?.updatedAt.toISOString() ?? null,
    remark: row.trouble ?? sending?.message ?? null,
  };
}

/** The report as rows for a spreadsheet, its head first. */
export const reportTable = (entries: readonly ReportEntry[]): string[][] => [[...REPORT_HEAD], ...reportRows(entries)];

/** The report to be printed. */
export async function printableReport(db: Database, one: StoredSeries): Promise<Uint8Array> {
  const entries = await reportOf(db, one);
  const printer = await findPrinter(db, one.printerId);
  const when = one.startedAt ? `, sent ${one.startedAt.toISOString().slice(0, 16).replace('T', ' ')} (UTC)` : '';
  return writeReport({
    title: one.title,
    lines: [`${printer.name}${when}`, `${reportSummary(entries)}.`],
    head: REPORT_HEAD,
    rows: reportRows(entries),
    wide: ['File', 'Remark'],
  });
}
