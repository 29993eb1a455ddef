import type { JobDocument, SeriesRecord, SeriesRow } from '@foglio/api';
import {
  sealOfAll,
  seriesChecks,
  seriesTally,
  type Printer,
  type RowOutcome,
  type SealOfMany,
  type SeriesCheck,
  type SeriesTally,
} from '@foglio/core';
import { countSheets, sayMoney } from '../bench/amounts';
import { trayColour, trayInk, trayMark } from '../bench/tray-mark';
import type { Outcomes, RowToPlan } from './series-planner';
import { isUnfit, sayRow, type RowMark } from './series-words';

export interface TrayView {
  readonly mark: string;
  readonly colour: string;
  readonly ink: string;
  readonly said: string;
}

/** A row of the table. */
export interface RowView {
  readonly row: SeriesRow;
  readonly number: number;
  readonly pages: string;
  readonly sheets: string;
  readonly cost: string;
  readonly trays: readonly TrayView[];
  readonly mark: RowMark;
  readonly said: string;
}

/** What a series is shown from: as the server tells it, what is known of its files, and what each comes to. */
export interface SeriesParts {
  readonly series: SeriesRecord | null;
  readonly documents: readonly JobDocument[];
  readonly outcomes: Outcomes;
  readonly profile: Printer | null;
}

/** The files that can be planned: those that were taken in and whose labels and headings are known. */
export function rowsToPlan({ series, documents }: Pick<SeriesParts, 'series' | 'documents'>): RowToPlan[] {
  const known = new Map(documents.map((one) => [one.id, one]));
  return (series?.rows ?? []).flatMap(({ id, ticket, file }) => {
    const facts = file === null ? undefined : known.get(file);
    return ticket && facts?.outline ? [{ id, ticket, documents: ticket.documents.map(() => facts) }] : [];
  });
}

/** Whether two lists of files are planned alike: the same files, tickets and facts, in the same order. */
export const areSameRows = (some: readonly RowToPlan[], others: readonly RowToPlan[]): boolean =>
  some.length === others.length &&
  some.every(({ id, ticket, documents }, at) => {
    const other = others[at];
    return (
      other?.id === id && other.ticket === ticket && documents.every((one, place) => other.documents[place] === one)
    );
  });

/** A tray as it is marked in rows and totals. */
export function trayView(profile: Printer | null, tray: string, said: string): TrayView {
  const place = profile?.trays.findIndex(({ id }) => id === tray) ?? -1;
  return { mark: trayMark(place), colour: trayColour(place), ink: trayInk(place), said };
}

export function rowViews({ series, documents, outcomes, profile }: SeriesParts): RowView[] {
  const pagesOf = new Map(documents.map(({ id, pages }) => [id, pages.length]));
  return (series?.rows ?? []).map((row, at) => {
    const outcome = outcomes.get(row.id);
    const tally = outcome?.tally ?? null;
    return {
      row,
      number: at + 1,
      pages: row.file === null ? '' : String(pagesOf.get(row.file) ?? ''),
      sheets: tally ? String(tally.sheets) : '',
      cost: tally && tally.cost > 0 ? sayMoney(tally.cost) : '',
      trays: (profile?.trays ?? []).flatMap(({ id, name }) => {
        const count = tally?.byTray[id] ?? 0;
        return count === 0 ? [] : [trayView(profile, id, `${name ?? id}: ${countSheets(count)}`)];
      }),
      ...sayRow(row, outcome, series?.state !== 'draft'),
    };
  });
}

/** What all files that are to be printed come to together. */
export interface Whole {
  readonly tally: SeriesTally;
  readonly checks: readonly SeriesCheck[];
  readonly planned: number;
  readonly toPrint: number;
  /** Files that keep the rest from being sent. */
  readonly unfit: number;
  readonly readPages: number;
  readonly allPages: number;
}

export function wholeOf({ series, documents, outcomes, profile }: SeriesParts): Whole | null {
  if (!series || !profile) return null;
  const printed = series.rows.filter(({ skipped, trouble }) => !skipped && trouble === null);
  const planned = printed.flatMap(({ id, name }): { name: string; outcome: RowOutcome }[] => {
    const outcome = outcomes.get(id);
    return outcome ? [{ name, outcome }] : [];
  });
  const results = planned.map(({ outcome }) => outcome);
  const names = planned.map(({ name }) => name);
  return {
    tally: seriesTally(results, profile),
    checks: seriesChecks(results, names, profile),
    planned: planned.length,
    toPrint: printed.length,
    unfit: series.rows.filter((row) => isUnfit(row, outcomes.get(row.id))).length,
    readPages: documents.reduce((sum, { read }) => sum + read, 0),
    allPages: documents.reduce((sum, { pages }) => sum + pages.length, 0),
  };
}

/** What the server compares with its own plans: the seal of all files that are printed, in their order. */
export const sealSeen = ({ series, outcomes }: Pick<SeriesParts, 'series' | 'outcomes'>): SealOfMany =>
  sealOfAll(
    (series?.rows ?? []).flatMap(({ id, skipped, trouble }) =>
      skipped || trouble !== null ? [] : (outcomes.get(id)?.seal ?? []),
    ),
  );

/** How far the sending of a series is, by the printer's count. */
export interface Progress {
  readonly filesDone: number;
  readonly files: number;
  readonly sheetsDone: number;
  readonly sheets: number;
  readonly percent: number;
  /** The file that went wrong and keeps the rest waiting. */
  readonly broken: SeriesRow | null;
  /** What the printer needs, for as long as it stands still. */
  readonly fault: string | null;
}

const BROKEN = ['failed', 'aborted', 'interrupted', 'uncertain'];
const MOVING = ['sending', 'printing', 'held'];

export function progressOf({ rows, state }: SeriesRecord): Progress {
  const sent = rows.flatMap(({ sending }) => sending ?? []);
  const sheets = sent.reduce((sum, one) => sum + one.sheets, 0);
  const sheetsDone = sent.reduce((sum, one) => sum + one.sheetsDone, 0);
  const broken = rows.find(({ sending }) => BROKEN.includes(sending?.state ?? '')) ?? null;
  return {
    filesDone: sent.filter((one) => one.state === 'completed').length,
    files: sent.length,
    sheetsDone,
    sheets,
    percent: sheets === 0 ? 0 : (100 * sheetsDone) / sheets,
    broken: state === 'paused' ? broken : null,
    fault: sent.find((one) => MOVING.includes(one.state) && one.message !== null)?.message ?? null,
  };
}

/** Rows that are as they were stay the very same objects, so that nothing is planned again for them. */
export function keepSame(before: SeriesRecord | null, after: SeriesRecord): SeriesRecord {
  if (before?.id !== after.id) return after;
  const known = new Map(before.rows.map((row) => [row.id, row]));
  const rows = after.rows.map((row) => {
    const old = known.get(row.id);
    if (!old) return row;
    if (JSON.stringify(old) === JSON.stringify(row)) return old;
    return JSON.stringify(old.ticket) === JSON.stringify(row.ticket) ? { ...row, ticket: old.ticket } : row;
  });
  return { ...after, rows };
}
