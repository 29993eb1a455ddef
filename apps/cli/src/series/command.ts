import { statSync } from 'node:fs';
import { basename, extname, join, dirname } from 'node:path';
import { reportSummary, seriesChecks, type Printer } from '@foglio/core';
import { askProfile, IppError } from '@foglio/ipp';
import { confirmed } from '../confirm';
import { InputError } from '../input-error';
import type { Opening } from '../document-file';
import { loadPrinter, loadSetup } from '../job-file';
import { addressOf, type AccessOptions } from '../printer-address';
import { writeWhole } from '../write-whole';
import { Journal } from './journal';
import { entriesOf, planSummary, reportFile, requireKind } from './report';
import { isFit, isOpen, planFile, type Planning, type Row } from './row';
import { requireOnePass, Sender, SeriesStopped } from './sending';

export interface SeriesOptions extends AccessOptions {
  readonly ticket: string;
  readonly to?: string;
  readonly printer?: string;
  readonly watch?: string;
  readonly journal?: string;
  readonly report?: string;
  readonly yes?: boolean;
  readonly skip?: boolean;
}

/** How a series ended. */
export type SeriesEnd = 'done' | 'stopped' | 'refused';

interface Talk {
  readonly say: (text: string) => void;
  readonly complain: (text: string) => void;
}

/** A file that is still being written is not taken: it must have been left alone for so long. */
const SETTLED_MS = 500;

/**
 * `series --ticket SETUP FILES...`: what a set-up makes of many files; with `--to`, sends them one after the other and
 * waits until they have come out. Run again, it does only what is left. With `--watch`, what is put into a folder too.
 *
 * @throws InputError, IppError
 */
export async function runSeries(
  files: readonly string[],
  options: SeriesOptions,
  opening: Opening,
  talk: Talk,
): Promise<SeriesEnd> {
  if (options.report !== undefined) requireKind(options.report);
  if (options.watch !== undefined) requireFolder(options.watch);
  if (options.watch !== undefined && options.to === undefined)
    throw new InputError('--watch', 'say where to with --to');
  if (files.length === 0 && options.watch === undefined) throw new InputError('series', 'there is no file; name some');
  const setup = await loadSetup(options.ticket);
  const printer = await printerOf(options);
  const journal = options.to === undefined ? null : new Journal(options.journal ?? journalBeside(options.ticket));
  try {
    const planning = { setup, printer, journal, opening };
    const rows = await planAll(files, planning);
    const open = rows.filter(isOpen);
    if (open.length < rows.length) talk.say(`${rows.length - open.length} files were done before.`);
    if (open.length > 0) talk.say(planSummary(open, printer));
    const unfit = open.filter((row) => !isFit(row));
    if (unfit.length > 0 && !options.skip) {
      if (options.to !== undefined)
        talk.complain(`Not sent: ${unfit.length} files do not fit; mend them, or leave them out with --skip.`);
      return 'stopped';
    }
    if (options.to === undefined || printer === null || journal === null) return 'done';
    return await sendAll(rows, { ...planning, printer, journal, options: { ...options, to: options.to } }, talk);
  } finally {
    journal?.close();
  }
}

async function planAll(files: readonly string[], planning: Planning): Promise<Row[]> {
  const rows: Row[] = [];
  for (const file of files) {
    rows.push(await planFile(file, planning));
    if (process.stderr.isTTY) process.stderr.write(`\rplanned ${rows.length} of ${files.length} files`);
  }
  if (process.stderr.isTTY && files.length > 0) process.stderr.write('\n');
  return rows;
}

interface SendingAll extends Planning {
  readonly printer: Printer;
  readonly journal: Journal;
  readonly options: SeriesOptions & { readonly to: string };
}

async function sendAll(rows: Row[], sending: SendingAll, talk: Talk): Promise<SeriesEnd> {
  const { printer, journal, options } = sending;
  const left = rows.filter(isOpen).filter(isFit);
  requireOnePass(left, printer);
  const outcomes = left.map(({ outcome }) => outcome);
  const checks = seriesChecks(
    outcomes,
    left.map(({ name }) => name),
    printer,
  );
  const cautions = checks.filter(({ level }) => level === 'caution');
  const sheets = outcomes.reduce((sum, { tally }) => sum + (tally?.sheets ?? 0), 0);
  if (cautions.length > 0 && !options.yes && !(await confirmed(cautions, sheets))) return 'refused';
  const sender = new Sender({ ...sending, address: await addressOf(options.to, options), say: talk.complain });
  let end: SeriesEnd = 'done';
  try {
    for (const row of left) await sender.send(row);
    await sender.follow();
    if (options.watch !== undefined) await follow(options.watch, rows, { ...sending, sender }, talk);
  } catch (error) {
    if (!(error instanceof SeriesStopped || error instanceof IppError)) throw error;
    talk.complain(error.message);
    end = 'stopped';
  }
  const entries = entriesOf(rows, journal);
  if (options.report !== undefined) {
    await writeWhole(options.report, await reportFile(options.report, basename(options.ticket), entries));
  }
  talk.say(`${reportSummary(entries)}.`);
  return end;
}

interface Watching extends SendingAll {
  readonly sender: Sender;
}

/** Sends what is put into a folder, one after the other, until the process is told to end. */
async function follow(folder: string, rows: Row[], watching: Watching, talk: Talk): Promise<void> {
  const { sender, options } = watching;
  const taking = async (path: string): Promise<void> => {
    // Hours after the watching began, the printer as it is now is what counts.
    const row = await planFile(path, { ...watching, printer: await askProfile(await addressOf(options.to, options)) });
    rows.push(row);
    if (!isOpen(row)) return;
    const cautions = row.outcome.checks.filter(({ level }) => level === 'caution');
    // Confirmed or not: nobody is there to turn a stack over.
    const byHand = cautions.find(({ code }) => code === 'two-passes');
    const open = byHand ?? (options.yes ? undefined : cautions[0]);
    const why = isFit(row) ? open?.message : entriesOf([row], null)[0]?.remark;
    if (why !== undefined) return talk.complain(`${row.name}: not sent: ${why}`);
    await sender.send(row);
    await sender.follow();
  };
  // Only where it is wanted: no other command waits for it to be read.
  const { watch } = await import('chokidar');
  // Files that come together are sent in turn; one that stops the series stops the watching.
  let queue = Promise.resolve();
  await new Promise<void>((end, failed) => {
    const watcher = watch(folder, {
      awaitWriteFinish: { stabilityThreshold: SETTLED_MS, pollInterval: 100 },
      depth: 0,
    });
    const leave = (): void =>
      void watcher
        .close()
        .then(() => queue)
        .then(end, failed);
    watcher.on('add', (path) => {
      if (basename(path).startsWith('.')) return;
      queue = queue.then(() => taking(path));
      queue.catch((error: unknown) => void watcher.close().then(() => failed(error as Error)));
    });
    watcher.on('error', failed);
    watcher.on('ready', () => talk.complain(`Watching ${folder}; Ctrl+C ends it.`));
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, leave);
  });
}

async function printerOf(options: SeriesOptions): Promise<Printer | null> {
  const { to, printer } = options;
  if (to !== undefined) return askProfile(await addressOf(to, options));
  return printer === undefined ? null : loadPrinter(printer);
}

/** "contracts.json" keeps what it has done in "contracts.journal.jsonl". */
const journalBeside = (setup: string): string =>
  join(dirname(setup), `${basename(setup, extname(setup))}.journal.jsonl`);

function requireFolder(path: string): void {
  try {
    if (statSync(path).isDirectory()) return;
  } catch {
    // Said below, with the repair.
  }
  throw new InputError(path, 'there is no such folder; correct the path');
}
