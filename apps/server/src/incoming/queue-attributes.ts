import { fragmentOf, KNOWN_SIZES, sidesOf, type Printer, type Ticket } from '@foglio/core';
import { enumeration, integer, keyword, OPERATIONS, type Attributes, type Value } from '@foglio/ipp';
import { printerAttributes, scalings, WISHED, wordFor, type Wishes } from '@foglio/ipp/serving';
import type { Queue } from './queue';

/** What a queue takes, and what it tells of itself as a printer. */

export const FORMATS = [
  'application/pdf',
  'image/jpeg',
  'image/png',
  'image/tiff',
  'image/pwg-raster',
  'text/plain',
  'text/html',
  'message/rfc822',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  'application/octet-stream',
];

export const COMPRESSIONS = ['none', 'gzip'];

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

/** Pixels an inch at which pages drawn as pictures are taken. */
const RASTER_DPI = [300, 600];

const MOST_COPIES = 9999;

/** Edges in pixels, the smallest first (PWG 5100.13, 5.6.9). */
const ICONS = [48, 128, 512];

/** What may differ from page to page of a job on the Desk; a set-up says that itself. */
const MAY_DIFFER = ['media-col', 'sides'];

/** Job template attributes that a queue takes. */
export const templateOf = ({ setup }: Pick<Queue, 'setup'>): readonly string[] =>
  setup ? WISHED.filter((name) => name !== 'overrides') : WISHED;

/** What of a job's wishes is done: of those to a set-up what it leaves open, since all else that it takes is as it is anyway. */
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

/** All that a queue tells of itself. @param address at which it is asked */
export function attributesOf(queue: Queue, address: string, { queued, changedAt, page }: Standing): Attributes {
  const { setup, uuid, title, ticket } = queue;
  const profile = profileOf(queue);
  const told = printerAttributes(
    {
      profile,
      info: setup ? `${title} (Foglio)` : title,
      uuid,
      operations: QUEUE_OPERATIONS,
      formats: FORMATS,
      compressions: COMPRESSIONS,
      takesSeveral: true,
      template: templateOf(queue),
      mostCopies: MOST_COPIES,
      otherSizes: setup ? [] : KNOWN_SIZES.map(({ name }) => name),
      isAnySize: setup === null,
      rasterDpi: RASTER_DPI,
      moreInfo: page,
      // Where it is asked, since the application may not be reached from there.
      icons: ICONS.map((pixels) => new URL(`/icon-${pixels}.png`, address.replace(/^ipp:/, 'http:')).href),
      standing: { state: queued > 0 ? 'processing' : 'idle', reasons: ['none'], message: '', queued, changedAt },
    },
    address,
  );
  const usual = usualOf(queue, profile);
  return { ...told, ...choices(), ...usual, ...(setup ? narrowed(usual, ticket) : {}) };
}

const ANYTHING = { takes: null, mostCopies: null, formats: [], operations: [], raster: null };

/** The printer that a program sees: the one behind, which two passes let print both sides. */
function profileOf({ title, printer, setup, ticket }: Queue): Printer {
  const { profile } = printer;
  // Somewhere its sheets come out (PWG 5100.2).
  const outputBins = profile.outputBins.length > 0 ? profile.outputBins : [profile.delivers];
  // It makes itself what the printer behind does not.
  const jobs = { ...ANYTHING, overrides: setup ? [] : MAY_DIFFER, documents: false };
  return {
    ...profile,
    name: title,
    duplex: true,
    outputBins,
    // What is stapled is said where the sheets are seen.
    finishings: [],
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
    margin: null,
  }));
}

/** Settings that have words of their own in the standard, with every value there is. */
const choices = (): Attributes => ({
  'number-up-supported': (fragmentOf('layout.pagesPerSide', 'grid').enum as number[]).map(integer),
  'presentation-direction-number-up-supported': (fragmentOf('layout.flow', 'grid').enum as string[]).map(keyword),
  'print-scaling-supported': scalings().map(keyword),
});

/** What holds where a program asks for nothing: as new jobs begin, or as the set-up has it. */
function usualOf({ setup, ticket }: Queue, { color, outputBins }: Printer): Attributes {
  const sides = sidesOf(ticket);
  const edge = sides === 'one-sided' ? sides : ticket.bind === 'top' ? 'two-sided-short-edge' : 'two-sided-long-edge';
  const layout = ticket.layout.kind === 'grid' ? ticket.layout : null;
  const bin = ticket.outputBin === 'auto' ? (outputBins[0] ?? 'face-down') : ticket.outputBin;
  return {
    'sides-default': [keyword(edge)],
    'print-color-mode-default': [keyword(ticket.color === 'monochrome' || !color ? 'monochrome' : 'auto')],
    'print-quality-default': [enumeration(wordFor('quality', ticket.quality) as number)],
    // To a set-up a program gives pages as it has them, and they are laid out there.
    'number-up-default': [integer(setup ? 1 : (layout?.pagesPerSide ?? 1))],
    'presentation-direction-number-up-default': [keyword(layout?.flow ?? 'toright-tobottom')],
    'print-scaling-default': [keyword('auto')],
    'output-bin-default': [keyword(bin)],
  };
}

/** Of what is only one thing at a set-up, no more than that; how finely is left open where the set-up does not say. */
function narrowed(usual: Attributes, { quality }: Ticket): Attributes {
  const only = [
    'sides',
    'print-color-mode',
    'number-up',
    'output-bin',
    ...(quality === 'normal' ? [] : ['print-quality']),
  ];
  return Object.fromEntries(
    only.map((name): [string, readonly Value[]] => [`${name}-supported`, usual[`${name}-default`] ?? []]),
  );
}
