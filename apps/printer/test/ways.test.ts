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
  isInformationSheet,
  partOf,
  passPlan,
  plan,
  type Face,
  type Plan,
  type Printer,
  type Sheet,
  type Ticket,
} from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { askProfile, sendShipment, shipmentOf, type Shipment } from '@foglio/ipp';
import { impose, readFacts, type ImposeInput } from '@foglio/pdf';
import { createApp } from '../src/app';
import { Archive, isOver } from '../src/archive';
import { Machine } from '../src/machine';
import type { Mark } from '../src/paper';
import { listen } from '../../../packages/ipp/test/second-opinion';

/**
 * Tickets times printers: what each printer delivers, by its own record, is what the core says it will deliver, sheet by
 * sheet; or a check of level stop says why not, before anything is sent.
 */

const A4 = [595.276, 841.89] as const;
const A3 = [841.89, 1190.551] as const;
const LETTER = [612, 792] as const;
const LEGAL = [612, 1008] as const;
const ODD = [300, 450] as const;

type PageSize = readonly [number, number];
const pages = (count: number, size: PageSize = A4): PageSize[] => Array.from({ length: count }, () => size);

interface Case {
  readonly pages: readonly PageSize[];
  readonly ticket: object;
}

const TWO_SIDED = { sides: 'two-sided' };

const CASES: Readonly<Record<string, Case>> = {
  uniform: { pages: pages(5), ticket: { ...TWO_SIDED, copies: 2 } },
  'letterhead first': {
    pages: pages(5),
    ticket: { ...TWO_SIDED, copies: 2, routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }] },
  },
  contract: {
    pages: pages(14),
    ticket: {
      ...TWO_SIDED,
      copies: 2,
      tray: 'tray-1',
      routes: [
        { pages: '1', tray: 'tray-2', sides: 'one-sided' },
        { pages: '6, 9', tray: 'tray-3', sides: 'one-sided' },
      ],
    },
  },
  'letter and legal': { pages: [LETTER, LEGAL, LETTER, LEGAL], ticket: {} },
  'A4 and letter': { pages: [A4, LETTER, LETTER, A4, A4], ticket: { copies: 2 } },
  'A3 among A4': { pages: [A4, A3, A4, A4], ticket: { ...TWO_SIDED } },
  'booklet with a cover': { pages: pages(12), ticket: { ...TWO_SIDED, layout: { kind: 'booklet', cover: 'tray-3' } } },
  booklet: { pages: pages(10), ticket: { ...TWO_SIDED, copies: 2, layout: { kind: 'booklet' } } },
  'booklet, then a report': {
    pages: pages(9),
    ticket: { ...TWO_SIDED, copies: 2, routes: [{ pages: '1-4', layout: { kind: 'booklet' } }] },
  },
  uncollated: { pages: pages(3), ticket: { copies: 3, collate: false } },
  'slips between sets': { pages: pages(3), ticket: { copies: 3, slips: { between: 'sets' } } },
  'one-sided among two-sided': {
    pages: pages(7),
    ticket: { ...TWO_SIDED, copies: 2, routes: [{ pages: '3', sides: 'one-sided' }] },
  },
  'A4 and letter, both sides and one': {
    pages: [A4, A4, LETTER, LETTER, A4],
    ticket: { ...TWO_SIDED, routes: [{ pages: '5', sides: 'one-sided' }] },
  },
  'custom size': { pages: pages(2, ODD), ticket: {} },
  monochrome: { pages: pages(4), ticket: { ...TWO_SIDED, color: 'monochrome' } },
  reverse: { pages: pages(5), ticket: { ...TWO_SIDED, delivery: 'last-to-first' } },
  'four a side': { pages: pages(9), ticket: { ...TWO_SIDED, copies: 2, layout: { kind: 'grid', pagesPerSide: 4 } } },
  // Beyond 255 a number takes a second byte in a message.
  '258 pages': { pages: pages(258), ticket: { ...TWO_SIDED } },
  'information sheet': { pages: pages(3), ticket: { ...TWO_SIDED, copies: 2, informationSheet: { print: true } } },
  'information sheet, one-sided, last first': {
    pages: pages(3),
    ticket: { delivery: 'last-to-first', informationSheet: { print: true } },
  },
  'face up but for its last page': {
    pages: pages(5),
    ticket: { ...TWO_SIDED, copies: 2, outputBin: 'face-up', routes: [{ pages: 'last', outputBin: 'auto' }] },
  },
  'information sheet and slips': {
    pages: pages(2),
    ticket: { copies: 3, informationSheet: { print: true }, slips: { between: 'sets' } },
  },
};

const demoPrinter = (name: string): Printer => {
  const path = join(__dirname, `../../../demo/printers/${name}.json`);
  const printer = readPrinter(JSON.parse(readFileSync(path, 'utf8')));
  return { ...printer, trays: printer.trays.map((tray) => ({ ...tray, loaded: 5000, capacity: 5000 })) };
};

const LIBRARY = demoPrinter('library');
const PRINTERS: readonly Printer[] = [
  demoPrinter('upper-office'),
  LIBRARY,
  demoPrinter('box-office'),
  // None of the demo's printers takes several documents in a job.
  { ...LIBRARY, name: 'Library with documents', jobs: { overrides: [], documents: true } },
];

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'foglio-ways-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A printer switched on for as long as something is done with it. */
async function withPrinter<T>(profile: Printer, then: (machine: Machine, archive: Archive, uri: string) => Promise<T>) {
  const archive = new Archive(folder);
  const machine = new Machine({ profile, archive, sheetMs: 0 });
  await machine.start();
  const server = createServer(createApp({ machine, archive }));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const listener = await listen(`ipp://127.0.0.1:${port}/ipp/print`);
  try {
    return await then(machine, archive, listener.uri);
  } finally {
    server.close();
    server.closeAllConnections();
    await machine.shutDown();
    listener.close();
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
}

/**
 * What the printer's own record says of some jobs, one after the other.
 *
 * @param backs jobs that printed the backs in a second pass: in their files these stand as fronts
 */
async function recordOf(machine: Machine, archive: Archive, jobs: readonly number[], backs: readonly number[] = []) {
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
      const { pages } = await readFacts(await archive.readDocument(job.id, index + 1));
      labels.set(
        `${job.id} ${index + 1}`,
        pages.map(({ label }) => label!),
      );
    }
  }
  const labelOf = (mark: Mark | null): string | null => {
    if (!mark) return null;
    const label = labels.get(`${mark.job} ${mark.document}`)![mark.page - 1]!;
    return backs.includes(mark.job) ? label.replace('front', 'back') : label;
  };
  return jobs.flatMap((id) =>
    machine.jobs.get(id)!.delivered.map((sheet): Delivered => {
      expect(sheet.spoilt).toBe(false);
      const { tray, outputBin } = sheet;
      return { tray, outputBin, upper: labelOf(sheet.upper), lower: labelOf(sheet.lower) };
    }),
  );
}

/** What the core says will come out. A blank back that the printer was asked for counts as printed. */
function expected(made: Plan, printer: Printer, blankBacks: boolean): Delivered[] {
  const labelOf = (face: Face | null, sheet: Sheet, other: Face | null): string | null => {
    if (face && isInformationSheet(sheet)) return `Information sheet ${face.which}`;
    if (face && sheet.slip) return sheet.index === 0 ? 'Slip' : `Sheet ${sheet.index} slip`;
    if (face) return `Sheet ${sheet.index} ${face.which}`;
    return blankBacks && other?.which === 'front' ? `Sheet ${sheet.index} back` : null;
  };
  return [...deliver(made, printer)].map(({ sheet, upper, lower }) => ({
    tray: sheet.tray,
    outputBin: sheet.outputBin,
    upper: labelOf(upper, sheet, lower),
    lower: labelOf(lower, sheet, upper),
  }));
}

interface Job {
  readonly ticket: Ticket;
  readonly documents: ImposeInput['documents'];
}

async function send(made: Plan, { ticket, documents }: Job, printer: Printer, printerUri: string) {
  const shipment = shipmentOf(made, ticket, printer);
  const statuses = await sendShipment({
    printerUri,
    shipment,
    pdfOf: ({ sheets }) => impose({ plan: partOf(made, sheets), ticket, documents, blanks: 'none' }),
    jobName: 'Test',
    userName: 'test',
  });
  return { shipment, jobs: statuses.map(({ id }) => id) };
}

/** Sends a job, in two passes where it must be, and gives what lies in the output at the end. */
async function print(made: Plan, job: Job, printer: Printer, machine: Machine, archive: Archive, uri: string) {
  const passes = inTwoPasses(made);
  if (!passes) {
    const { shipment, jobs } = await send(made, job, printer, uri);
    return { shipment, record: await recordOf(machine, archive, jobs) };
  }
  const fronts = await send(passPlan(made, 'front', printer.refeedTray), job, printer, uri);
  await recordOf(machine, archive, fronts.jobs);
  await machine.refeed(machine.jobs.get(fronts.jobs.at(-1)!)!, passes[1].handling === 'turn-over');
  const backs = await send(passPlan(made, 'back', printer.refeedTray), job, printer, uri);
  return { shipment: fronts.shipment, record: await recordOf(machine, archive, backs.jobs, backs.jobs) };
}

const wayOf = ({ way, jobs }: Shipment, made: Plan): string =>
  `${made.passes ? 'two passes, ' : ''}${way}, ${jobs.length} ${jobs.length === 1 ? 'job' : 'jobs'}`;

const TABLE: Record<string, readonly string[]> = {
  uniform: ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  'letterhead first': ['overrides, 1 job', 'stop tray-wrong-paper', 'stop tray-unknown', 'stop tray-wrong-paper'],
  contract: ['overrides, 1 job', 'stop tray-unknown', 'stop tray-unknown', 'stop tray-unknown'],
  'letter and legal': [
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
  ],
  'A4 and letter': ['stop no-tray-for-paper', 'by-size, 1 job', 'stop no-tray-for-paper', 'by-size, 1 job'],
  'A3 among A4': ['overrides, 1 job', 'stop no-tray-for-paper', 'stop no-tray-for-paper', 'stop no-tray-for-paper'],
  'booklet with a cover': ['overrides, 1 job', 'stop tray-unknown', 'stop tray-unknown', 'stop tray-unknown'],
  booklet: ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  'booklet, then a report': ['overrides, 1 job', 'separate, 4 jobs', 'two passes, plain, 1 job', 'documents, 1 job'],
  'face up but for its last page': [
    'overrides, 1 job',
    'stop output-bin-unknown',
    'stop output-bin-unknown',
    'stop output-bin-unknown',
  ],
  uncollated: ['plain, 1 job', 'plain, 1 job', 'plain, 1 job', 'plain, 1 job'],
  'slips between sets': ['plain, 1 job', 'plain, 1 job', 'plain, 1 job', 'plain, 1 job'],
  'one-sided among two-sided': [
    'overrides, 1 job',
    'two-sided-throughout, 1 job',
    'two passes, plain, 1 job',
    'documents, 1 job',
  ],
  'A4 and letter, both sides and one': [
    'stop no-tray-for-paper',
    'two-sided-throughout, 1 job',
    'stop no-tray-for-paper',
    'documents, 1 job',
  ],
  'custom size': [
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
    'stop no-tray-for-paper',
  ],
  monochrome: ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  reverse: ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  'four a side': ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  '258 pages': ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  'information sheet': ['plain, 1 job', 'plain, 1 job', 'two passes, plain, 1 job', 'plain, 1 job'],
  'information sheet, one-sided, last first': ['plain, 1 job', 'plain, 1 job', 'plain, 1 job', 'plain, 1 job'],
  'information sheet and slips': ['plain, 1 job', 'plain, 1 job', 'plain, 1 job', 'plain, 1 job'],
};

test.each(Object.keys(CASES))(
  '%s: the way, and every sheet as planned',
  async (name) => {
    const { pages: sizes, ticket: settings } = CASES[name]!;
    const bytes = await pdfOf(sizes);
    const documents = [{ name: 'test.pdf', bytes, ...(await readFacts(bytes)) }];
    const ticket = readTicket({ version: 1, documents: [{ file: 'test.pdf' }], ...settings });
    const found: string[] = [];
    for (const printer of PRINTERS) {
      const told = await withPrinter(printer, async (machine, archive, uri) => {
        // What only this side knows is laid over what the printer tells, as the server does.
        const asked = { ...(await askProfile(uri)), printsOn: printer.printsOn };
        const made = plan(ticket, documents, asked);
        const stop = made.checks.find(({ level }) => level === 'stop');
        if (stop) return `stop ${stop.code}`;
        const { shipment, record } = await print(made, { ticket, documents }, asked, machine, archive, uri);
        expect(record).toEqual(expected(made, asked, shipment.way === 'two-sided-throughout'));
        return wayOf(shipment, made);
      });
      found.push(told);
      rmSync(folder, { recursive: true, force: true });
    }
    expect(found).toEqual(TABLE[name]);
  },
  120_000,
);
