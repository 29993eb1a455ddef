/** What became of one file of a series. */
export interface ReportEntry {
  readonly file: string;
  /** Null: it could not be read, or does not fit the set-up. */
  readonly pages: number | null;
  readonly sheets: number | null;
  /** Sheets that the printer says have come out. */
  readonly delivered: number;
  /** In a word or two: "delivered", "left out". */
  readonly outcome: string;
  /** Numbers that the printer gave its jobs. */
  readonly printerJobs: readonly number[];
  /** When it was over, or last heard of; null where it was never sent. */
  readonly at: string | null;
  readonly remark: string | null;
}

/** What the columns of a series' report are called. */
export const REPORT_HEAD = [
  'No.',
  'File',
  'Pages',
  'Sheets',
  'Delivered',
  'Outcome',
  'Printer job',
  'When',
  'Remark',
] as const;

/** A report as rows of text under {@link REPORT_HEAD}; moments as "2026-09-01 09:30". */
export const reportRows = (entries: readonly ReportEntry[]): string[][] =>
  entries.map(({ file, pages, sheets, delivered, outcome, printerJobs, at, remark }, index) => [
    String(index + 1),
    file,
    pages === null ? '' : String(pages),
    sheets === null ? '' : String(sheets),
    String(delivered),
    outcome,
    printerJobs.join(' '),
    at === null ? '' : at.slice(0, 16).replace('T', ' '),
    remark ?? '',
  ]);

/** "58 of 60 files delivered, 290 sheets" */
export function reportSummary(entries: readonly ReportEntry[]): string {
  const whole = entries.filter(({ sheets, delivered }) => sheets !== null && sheets > 0 && delivered === sheets).length;
  const sheets = entries.reduce((sum, { delivered }) => sum + delivered, 0);
  return `${whole} of ${entries.length} files delivered, ${sheets} sheets`;
}
