import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import PDFDocument from 'pdfkit';
import {
  deliver,
  inTwoPasses,
  isOfParts,
  isGreyByItself,
  isInformationSheet,
  onMedium,
  partOf,
  partsOfSet,
  passPlan,
  plan,
  rasterFor,
  type Face,
  type Plan,
  type Printer,
  type Sheet,
  type Ticket,
} from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { askStatus, findJobs, IppError, sendShipment, shipmentOf, STATUS, type Shipment } from '@foglio/ipp';
import { impose, inFormat, readFacts, type ImposeInput } from '@foglio/pdf';
import { createApp } from '../src/app';
import { Archive, isOver } from '../src/archive';
import { Machine } from '../src/machine';
import type { Manner } from '../src/manners';
import type { Mark } from '../src/paper';
import { CASES, FINISHED_CASES, type PageSize } from './cases';
import { listen } from '../../../packages/ipp/test/second-opinion';

const demoPrinter = (name: string): Printer => {
  const path = join(__dirname, `../../../demo/printers/${name}.json`);
  const printer = readPrinter(JSON.parse(readFileSync(path, 'utf8')));
  return { ...printer, trays: printer.trays.map((tray) => ({ ...tray, loaded: 5000, capacity: 5000 })) };
};

const LIBRARY = demoPrinter('library');
export const PRINTERS: readonly Printer[] = [
  demoPrinter('upper-office'),
  LIBRARY,
  demoPrinter('box-office'),
  // None of the demo's printers takes several documents in a job.
  {
    ...LIBRARY,
    name: 'Library with documents',
    jobs: { ...LIBRARY.jobs, documents: true },
    finishings: ['staple-top-left', 'staple-bottom-left', 'staple-dual-left', 'punch-dual-left'],
  },
];

interface SwitchedOn {
  readonly machine: Machine;
  readonly archive: Archive;
  readonly uri: string;
  /** Labels of files that were drawn as pictures, which carry none, by which job and document of its shipment they are. */
  readonly drawn: Map<string, Promise<string[]>>;
}

/** A printer switched on for as long as something is done with it; what passes is read by a second reader where it can be. */
async function withPrinter<T>(profile: Printer, manner: Manner | null, then: (on: SwitchedOn) => Promise<T>) {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-ways-'));
  const archive = new Archive(folder);
  const machine = new Machine({ profile, archive, sheetMs: 0 });
  await machine.start();
  const server = createServer(createApp({ machine, archive, ...(manner ? { manner } : {}) }));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const direct = `ipp://127.0.0.1:${(server.address() as AddressInfo).port}/ipp/print`;
  const listener = manner ? null : await listen(direct);
  try {
    return await then({ machine, archive, uri: listener?.uri ?? direct, drawn: new Map() });
  } finally {
    server.close();
    server.closeAllConnections();
    await machine.shutDown();
    listener?.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function pdfOf(sizes: readonly PageSize[]): Promise<Uint8Array> {
  const document = new PDFDocument({ autoFirstPage: false });
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  sizes.forEach((size, index) => document.addPage({ size: [...size] }).text(`Page ${index + 1}`));
  document.end();
  await new Promise((resolve) => document.on('end', resolve));
  return new Uint8Array(Buffer.concat(parts));
}

/** A sheet as it lies in the output: the labels that its faces have in the file that was sent; null: nothing on it. */
interface Delivered {
  readonly tray: string | null;
  /** Undefined: the printer's usual one. */
  readonly outputBin: string | undefined;
  readonly upper: string | null;
  readonly lower: string | null;
  /** What was done to it; where that is done to several together also with the how many such part of the job it was. */
  readonly finished: string | null;
}

/**
 * What the printer's own record says of some jobs, one after the other.
 *
 * @param backs jobs that printed the backs in a second pass: in their files these stand as fronts
 */
async function recordOf(
  { machine, archive, drawn }: SwitchedOn,
  jobs: readonly number[],
  backs: readonly number[] = [],
) {
  for (const id of jobs) {
    const job = machine.jobs.get(id)!;
    for (let round = 0; !isOver(job); round += 1) {
      if (machine.stop || round > 3000) throw new Error(`job ${id} is ${job.state}: ${machine.stop?.reason}`);
      await wait(10);
    }
    expect(job.state).toBe('completed');
  }
  const labels = new Map<string, string[]>();
  for (const job of machine.jobs.values()) {
    for (const index of job.documents.keys()) {
      const read = await labelsOf(await archive.readDocument(job.id, index + 1));
      const known = await drawn.get(`${jobs.indexOf(job.id)} ${index}`);
      if (known) expect(read).toHaveLength(known.length);
      labels.set(`${job.id} ${index + 1}`, known ?? read);
    }
  }
  const labelOf = (mark: Mark | null): string | null => {
    if (!mark) return null;
    const label = labels.get(`${mark.job} ${mark.document}`)![mark.page - 1]!;
    return backs.includes(mark.job) ? label.replace('front', 'back') : label;
  };
  const partOfAll = counter();
  return jobs.flatMap((id) =>
    machine.jobs.get(id)!.delivered.map((sheet): Delivered => {
      expect(sheet.spoilt).toBe(false);
      const { tray, outputBin, finished, set, document } = sheet;
      const done = finished && [...finished.finishings].sort().join(' ');
      const part = { set: `${set}`, document: `${set} ${document}`, sheet: `${sheet.index}` };
      return {
        tray,
        outputBin,
        upper: labelOf(sheet.upper),
        lower: labelOf(sheet.lower),
        finished: done
          ? isTogether(done)
            ? `${done}, part ${partOfAll(`${id} ${part[finished.each]}`)}`
            : done
          : null,
      };
    }),
  );
}

/** Counts parts as they begin. */
function counter(): (key: string) => number {
  let [count, last] = [0, ''];
  return (key) => {
    if (key !== last) count += 1;
    last = key;
    return count;
  };
}

const isTogether = (done: string): boolean => done.split(' ').some((name) => !name.startsWith('punch'));

/** What is done to a sheet of a plan, in the standard's words. */
function finishedIn(made: Plan): (set: number, sheet: Sheet) => string | null {
  const { finishing } = made;
  if (!finishing) return () => null;
  const done = finishing.finishings
    .map((name) => onMedium(name, finishing.held))
    .sort()
    .join(' ');
  // Holes go through every sheet that the printer is given.
  if (!isOfParts(made)) return () => done;
  const parts = partsOfSet(made).map((sheets) => sheets.map(({ index }) => index));
  const partOfAll = counter();
  return (set, { index }) => {
    const part = parts.findIndex((indexes) => indexes.includes(index));
    return part < 0 ? null : `${done}, part ${partOfAll(`${set} ${part}`)}`;
  };
}

/** What the core says will come out. A blank back that the printer was asked for counts as printed. */
function expected(made: Plan, printer: Printer, blankBacks: boolean): Delivered[] {
  const labelOf = (face: Face | null, sheet: Sheet, other: Face | null): string | null => {
    if (face && isInformationSheet(sheet)) return `Information sheet ${face.which}`;
    if (face && sheet.slip) return sheet.index === 0 ? 'Slip' : `Sheet ${sheet.index} slip`;
    if (face) return `Sheet ${sheet.index} ${face.which}`;
    return blankBacks && other?.which === 'front' ? `Sheet ${sheet.index} back` : null;
  };
  const finished = finishedIn(made);
  return [...deliver(made, printer)].map(({ set, sheet, upper, lower }) => ({
    tray: sheet.tray,
    outputBin: sheet.outputBin,
    upper: labelOf(upper, sheet, lower),
    lower: labelOf(lower, sheet, upper),
    finished: finished(set, sheet),
  }));
}

interface Job {
  readonly ticket: Ticket;
  readonly documents: ImposeInput['documents'];
}

const imposedFiles = new Map<string, Promise<Uint8Array>>();

/** As `impose`, once for what comes to the same: many printers are sent the same. */
function imposed(input: ImposeInput): Promise<Uint8Array> {
  const { plan: made, documents, grey } = input;
  const key = JSON.stringify([documents.map(({ bytes }) => bytes.length), made.sheets, grey]);
  if (!imposedFiles.has(key)) imposedFiles.set(key, impose(input));
  return imposedFiles.get(key)!;
}

const labelsOfFiles = new Map<string, Promise<string[]>>();

/** The labels of the pages of a file that was sent; of pictures those of the file that they were drawn from. */
function labelsOf(bytes: Uint8Array): Promise<string[]> {
  const key = createHash('sha256').update(bytes).digest('hex');
  const read = async (): Promise<string[]> => (await readFacts(bytes)).pages.map(({ label }) => label!);
  if (!labelsOfFiles.has(key)) labelsOfFiles.set(key, read());
  return labelsOfFiles.get(key)!;
}

const MARK = { mark: '#test', userName: 'test' };

/** Sends, as the server does where the printer is busy or hangs up: it comes again, or looks what the printer has of it. */
async function send(made: Plan, { ticket, documents }: Job, printer: Printer, { uri, machine, drawn }: SwitchedOn) {
  const shipment = shipmentOf(made, ticket, printer);
  const grey = !isGreyByItself(ticket, printer);
  const raster = rasterFor(shipment.format, ticket, printer);
  const had = [...machine.jobs.keys()];
  const jobs: number[] = [];
  let trouble = '';
  for (let attempt = 0; jobs.length < shipment.jobs.length; attempt += 1) {
    try {
      await sendShipment({
        address: uri,
        printer,
        shipment,
        documentOf: async ({ sheets }, part) => {
          const pdf = await imposed({ plan: partOf(made, sheets), ticket, documents, blanks: 'none', grey });
          if (raster) drawn.set(`${part.job} ${part.document}`, labelsOf(pdf));
          return inFormat(pdf, sheets, raster);
        },
        jobName: 'Test',
        ...MARK,
        sent: jobs.length,
        onCreated: (job) => Promise.resolve(void (jobs.includes(job) || jobs.push(job))),
      });
    } catch (error) {
      if (!(error instanceof IppError) || attempt > 20) throw error;
      if (error.jobCreated) {
        trouble = 'looked for, ';
        for (const job of await findJobs(uri, MARK)) if (!jobs.includes(job) && !had.includes(job)) jobs.push(job);
      } else if (error.status === STATUS.busy) trouble = 'tried again, ';
      else throw error;
    }
  }
  return { shipment, jobs, trouble };
}

/** Sends a job, in two passes where it must be, and gives what lies in the output at the end. */
async function print(made: Plan, job: Job, printer: Printer, on: SwitchedOn) {
  const { machine } = on;
  const passes = inTwoPasses(made);
  if (!passes) {
    const { jobs, ...sent } = await send(made, job, printer, on);
    return { ...sent, record: await recordOf(on, jobs) };
  }
  const { jobs: fronts, ...sent } = await send(passPlan(made, 'front', printer.refeedTray), job, printer, on);
  await recordOf(on, fronts);
  await machine.refeed(machine.jobs.get(fronts.at(-1)!)!, passes[1].handling === 'turn-over');
  const { jobs: backs } = await send(passPlan(made, 'back', printer.refeedTray), job, printer, on);
  return { ...sent, record: await recordOf(on, backs, backs) };
}

const wayOf = ({ way, jobs }: Shipment, made: Plan): string =>
  `${made.passes ? 'two passes, ' : ''}${way}, ${jobs.length} ${jobs.length === 1 ? 'job' : 'jobs'}`;

const files = new Map<string, Promise<Uint8Array>>();

/**
 * Prints a case on a printer, and holds what comes out against the plan.
 *
 * @returns the way it went, or the check that stopped it; why the printer could not be asked
 */
export async function tryOut(
  name: string,
  printer: Printer,
  manner: Manner | null = null,
  more: object = {},
): Promise<string> {
  const { pages: sizes, ticket: settings, times = 1 } = (CASES[name] ?? FINISHED_CASES[name])!;
  if (!files.has(name)) files.set(name, pdfOf(sizes));
  const bytes = await files.get(name)!;
  const document = { name: 'test.pdf', bytes, ...(await readFacts(bytes)) };
  const documents = Array.from({ length: times }, () => document);
  const entries = documents.map(({ name: file }) => ({ file }));
  const ticket = readTicket({ version: 1, documents: entries, ...settings, ...more });
  return withPrinter(printer, manner, async (on) => {
    let told: Printer;
    try {
      told = (await askStatus(on.uri, manner?.dripMs ? { answerMs: 30 } : {})).profile;
    } catch (error) {
      if (!(error instanceof IppError)) throw error;
      return error.message.replace(/ipp:[^\s:]+:\d+[^\s:]*|127\.0\.0\.1:\d+/g, 'it').replace(/byte \d+/, 'byte N');
    }
    // What only this side knows is laid over what the printer tells, as the server does.
    const asked = { ...told, printsOn: printer.printsOn };
    const made = plan(ticket, documents, asked);
    const stop = made.checks.find(({ level }) => level === 'stop');
    if (stop) return `stop ${stop.code}`;
    const { shipment, record, trouble } = await print(made, { ticket, documents }, asked, on);
    expect(record).toEqual(expected(made, asked, shipment.way === 'two-sided-throughout'));
    return trouble + wayOf(shipment, made);
  });
}
