import { KNOWN_SIZES, type Printer, type Ticket } from '@foglio/core';
import { enumeration, integer, keyword, OPERATIONS, type Attributes } from '@foglio/ipp';
import { nameUuid, printerAttributes, WISHED, type Wishes } from '@foglio/ipp/serving';
import { asc, eq, or, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { setups } from '../database/schema';
import { listPrinters, type StoredPrinter } from '../printers/printer-store';
import type { StoredSetup } from '../setups/setup-store';
import { DESK } from './desk';

/** Where another program can print to: the Desk, or a set-up. */
export interface Queue {
  /** The last part of its address. */
  readonly name: string;
  readonly title: string;
  readonly uuid: string;
  /** Null: the Desk. */
  readonly setup: StoredSetup | null;
  /** What a job begins from. */
  readonly ticket: Ticket;
  /** The printer that its jobs are for. */
  readonly printer: StoredPrinter;
}

/** Of this installation's Desk and no other's: a program that knows a printer by its UUID takes two of one for the same. */
async function deskUuid(db: Database): Promise<string> {
  const { rows } = await db.execute<{ name: string }>(
    sql`select system_identifier || ' ' || current_database() as name from pg_control_system()`,
  );
  return nameUuid(`urn:foglio:desk:${rows[0]!.name}`);
}

/** Pixels an inch at which pages drawn as pictures are taken. */
const RASTER_DPI = [300, 600];

export const FORMATS = [
  'application/pdf',
  'image/jpeg',
  'image/png',
  'image/pwg-raster',
  'text/plain',
  'application/octet-stream',
];

export const COMPRESSIONS = ['none', 'gzip'];

const MOST_COPIES = 9999;

/** Edges in pixels, the smallest first (PWG 5100.13, 5.6.9). */
const ICONS = [48, 128, 512];

/** What may be asked of a set-up: how often, which pages and how finely; of all else, what it does itself. */
const LEFT_OPEN = [
  'copies',
  'sheet-collate',
  'multiple-document-handling',
  'page-ranges',
  'sides',
  'media',
  'media-col',
  'print-color-mode',
  'orientation-requested',
  'print-quality',
  'print-scaling',
];

/** The queue of that name; null: there is none. */
export async function findQueue(db: Database, name: string): Promise<Queue | null> {
  const printers = await listPrinters(db);
  const [first] = printers;
  if (!first) return null;
  if (name === DESK)
    return {
      name,
      title: 'Foglio Desk',
      uuid: await deskUuid(db),
      setup: null,
      printer: first,
      ticket: await startingTicket(db, first),
    };
  const [setup] = await db.select().from(setups).where(eq(setups.queue, name));
  return setup ? queueOf(setup, printers) : null;
}

/** All that are offered, the Desk first. */
export async function listQueues(db: Database): Promise<Queue[]> {
  const desk = await findQueue(db, DESK);
  const printers = await listPrinters(db);
  const offered = await db.select().from(setups).orderBy(asc(setups.name));
  return [...(desk ? [desk] : []), ...offered.flatMap((setup) => queueOf(setup, printers) ?? [])];
}

function queueOf(setup: StoredSetup, printers: readonly StoredPrinter[]): Queue | null {
  const printer = printers.find(({ id }) => id === setup.printerId) ?? printers[0];
  const { queue, name, id, ticket } = setup;
  return queue !== null && printer ? { name: queue, title: name, uuid: id, setup, ticket, printer } : null;
}

/** What new jobs for a printer start from. */
async function startingTicket(db: Database, { id }: StoredPrinter): Promise<Ticket> {
  const starting = await db
    .select()
    .from(setups)
    .where(or(eq(setups.starts, 'house'), eq(setups.printerId, id)));
  const own = starting.find(({ starts, printerId }) => starts === 'printer' && printerId === id);
  return (own ?? starting.find(({ starts }) => starts === 'house')!).ticket;
}

/** Job template attributes that a queue takes. */
export const templateOf = ({ setup }: Pick<Queue, 'setup'>): readonly string[] => (setup ? LEFT_OPEN : WISHED);

/** What of a job's wishes a queue has any use for: to a set-up only those that it leaves open. */
export const heeded = ({ setup, ticket }: Pick<Queue, 'setup' | 'ticket'>, wishes: Wishes): Wishes =>
  setup
    ? {
        ...NO_WISHES,
        copies: wishes.copies,
        collate: wishes.collate,
        pages: wishes.pages,
        quality: ticket.quality === 'normal' ? wishes.quality : null,
        left: wishes.left,
      }
    : wishes;

const NO_WISHES: Wishes = {
  copies: null,
  collate: null,
  sides: null,
  size: null,
  type: null,
  tray: null,
  pagesPerSide: null,
  flow: null,
  pages: [],
  orientation: null,
  monochrome: null,
  quality: null,
  scaling: null,
  outputBin: null,
  overrides: [],
  left: [],
};

/** How a queue stands. */
export interface Standing {
  readonly queued: number;
  readonly changedAt: Date;
  /** Address of the page in the application that tells of it. */
  readonly page: string;
}

/** What a queue tells of itself as a printer. */
export function attributesOf(queue: Queue, address: string, { queued, changedAt, page }: Standing): Attributes {
  const { setup, uuid, title } = queue;
  const told = printerAttributes(
    {
      profile: profileOf(queue),
      info: setup ? `${title} (Foglio)` : title,
      uuid,
      operations: QUEUE_OPERATIONS,
      formats: FORMATS,
      compressions: COMPRESSIONS,
      takesSeveral: true,
      template: templateOf(queue),
      mostCopies: MOST_COPIES,
      otherSizes: setup ? [] : KNOWN_SIZES.map(({ name }) => name),
      rasterDpi: RASTER_DPI,
      moreInfo: page,
      // Where it is asked, since the application may not be reached from there.
      icons: ICONS.map((pixels) => new URL(`/icon-${pixels}.png`, address.replace(/^ipp:/, 'http:')).href),
      standing: { state: queued > 0 ? 'processing' : 'idle', reasons: ['none'], message: '', queued, changedAt },
    },
    address,
  );
  return setup ? { ...told, ...standsFor(queue.ticket) } : { ...told, ...NUMBER_UP };
}

/** What a queue does (PWG 5100.14, section 5.1), and nothing that fetches anything from elsewhere. */
export const QUEUE_OPERATIONS = [
  OPERATIONS.printJob,
  OPERATIONS.validateJob,
  OPERATIONS.createJob,
  OPERATIONS.sendDocument,
  OPERATIONS.cancelJob,
  OPERATIONS.getJobAttributes,
  OPERATIONS.getJobs,
  OPERATIONS.getPrinterAttributes,
  OPERATIONS.cancelMyJobs,
  OPERATIONS.closeJob,
  OPERATIONS.identifyPrinter,
];

/** What may differ from page to page of a job on the Desk; a set-up says that itself. */
const MAY_DIFFER = ['media-col', 'sides'];

/** The printer that a program sees: the one behind, which two passes let print both sides. */
function profileOf({ title, printer, setup, ticket }: Queue): Printer {
  const { profile } = printer;
  // Somewhere its sheets come out (PWG 5100.2).
  const outputBins = profile.outputBins.length > 0 ? profile.outputBins : [profile.delivers];
  const jobs = { overrides: setup ? [] : MAY_DIFFER, documents: false };
  return {
    ...profile,
    name: title,
    duplex: true,
    outputBins,
    jobs,
    trays: setup ? papersOf(ticket, profile) : profile.trays,
  };
}

/** Of a set-up the sizes that it prints on: which tray each page comes from is its own business. */
function papersOf({ paper }: Ticket, { trays }: Printer): Printer['trays'] {
  const all = [...new Set(paper.size === 'as-page' ? trays.map(({ size }) => size) : [paper.size])];
  return all.map((size, at) => ({
    id: at === 0 ? 'main' : `main-${at + 1}`,
    name: null,
    size,
    type: null,
    weight: null,
    capacity: null,
    loaded: null,
    price: 0,
  }));
}

/** The sides and the colour that a set-up stands for. */
const standsFor = ({ sides, bind, color, quality }: Ticket): Attributes => {
  const edge = sides === 'one-sided' ? sides : bind === 'top' ? 'two-sided-short-edge' : 'two-sided-long-edge';
  const mode = color === 'monochrome' ? 'monochrome' : 'auto';
  return {
    'sides-supported': [keyword(edge)],
    'sides-default': [keyword(edge)],
    'print-color-mode-supported': [keyword(mode)],
    'print-color-mode-default': [keyword(mode)],
    'print-quality-supported': quality === 'normal' ? QUALITIES.map(enumeration) : [enumeration(NUMBERS[quality])],
    'print-scaling-supported': SCALINGS.map(keyword),
    'print-scaling-default': [keyword('auto')],
  };
};

/** print-quality (RFC 8011, 5.2.13). */
const NUMBERS = { draft: 3, normal: 4, high: 5 } as const;
const QUALITIES = Object.values(NUMBERS);
const SCALINGS = ['auto', 'auto-fit', 'fill', 'fit', 'none'];

const NUMBER_UP: Attributes = {
  'number-up-supported': [1, 2, 4, 6, 8, 9, 16].map(integer),
  'number-up-default': [integer(1)],
  'presentation-direction-number-up-supported': [
    'toright-tobottom',
    'toright-totop',
    'toleft-tobottom',
    'toleft-totop',
    'tobottom-toright',
    'tobottom-toleft',
    'totop-toright',
    'totop-toleft',
  ].map(keyword),
  'presentation-direction-number-up-default': [keyword('toright-tobottom')],
  'print-scaling-supported': SCALINGS.map(keyword),
  'print-scaling-default': [keyword('auto')],
};
