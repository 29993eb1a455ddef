import { printerSchema, marksSchema, sealOfManySchema, sealSchema } from '@foglio/core';
import type { Described } from './record';

/** What requests carry, as JSON Schemas. Tickets are read by the core, whose errors name the place and the repair. */

const anyTicket = { type: 'object', description: 'A ticket; what is left out has its usual value.' } as const;
const revision = {
  type: 'integer',
  minimum: 1,
  description: 'Which state of the job the change begins from.',
} as const;

/** An object of one field and nothing else. */
const field = <const N extends string, const S>(name: N, schema: S) =>
  ({
    type: 'object',
    additionalProperties: false,
    required: [name],
    properties: { [name]: schema } as { readonly [K in N]: S },
  }) as const;

export const newJob = {
  type: 'object',
  additionalProperties: false,
  required: ['ticket'],
  properties: {
    ticket: anyTicket,
    printerId: { type: 'string', description: 'Left out: the first printer known.' },
  },
} as const;

export const changedTicket = {
  type: 'object',
  additionalProperties: false,
  required: ['ticket', 'revision'],
  properties: { ticket: anyTicket, revision },
} as const;

export const changedPrinter = {
  type: 'object',
  additionalProperties: false,
  required: ['printerId', 'revision'],
  properties: { printerId: { type: 'string' }, revision },
} as const;

const sendingKey = {
  type: 'string',
  minLength: 16,
  maxLength: 100,
  description:
    'Made anew for each sending. A request that comes again with it, since its answer was lost, is answered with what the first one entered.',
} as const;

const { $schema: _, $id: __, ...sealFields } = sealSchema;
const { $schema: ___, $id: ____, ...sealOfManyFields } = sealOfManySchema;
const seal = {
  ...sealFields,
  description:
    'Of the plan that the person saw (model, Seal): another one is refused. A program that shows nobody the sheets may leave it out; their number alone is compared then.',
} as const;

/** What a person saw before pressing Send. */
/** As printers show who sent it (RFC 8011, 5.3.6: name(MAX)); left out where nobody said. */
const by = { type: 'string', minLength: 1, maxLength: 100 } as const;

export const toSend = {
  type: 'object',
  additionalProperties: false,
  required: ['jobId', 'revision', 'sheets'],
  properties: {
    jobId: { type: 'string' },
    revision,
    sheets: { type: 'integer', minimum: 1 },
    confirmed: {
      type: 'array',
      items: { type: 'string' },
      maxItems: 100,
      description: 'Codes of the cautions that were seen and confirmed.',
    },
    key: sendingKey,
    seal,
    by,
  },
} as const;

/** Sending once more what is over: all of it, or sheets of it. */
export const toPrintAgain = {
  type: 'object',
  additionalProperties: false,
  properties: {
    key: sendingKey,
    by,
    marks: { ...marksSchema, description: 'Sheets by their numbers in the plan; left out: all that it printed.' },
  },
} as const;

/** Beginning a pass, or what waits. */
export const toSendAgain = {
  type: 'object',
  additionalProperties: false,
  properties: { key: sendingKey, by },
} as const;

/** What it takes to ask a printer, where it wants more than its address. */
const access = {
  fingerprint: {
    type: ['string', 'null'],
    pattern: '^([0-9A-F]{2}:){31}[0-9A-F]{2}$',
    description: 'SHA-256 of the certificate that a person trusts.',
  },
  login: {
    type: ['object', 'null'],
    additionalProperties: false,
    required: ['name', 'password'],
    properties: {
      name: { type: 'string', maxLength: 255 },
      password: { type: 'string', maxLength: 255, description: 'Kept encrypted, and never told.' },
    },
  },
} as const;
export const printerAddress = {
  type: 'object',
  additionalProperties: false,
  required: ['uri'],
  properties: { uri: { type: 'string', minLength: 1, maxLength: 1000 }, ...access },
} as const;
export const printerAccess = { type: 'object', additionalProperties: false, properties: access } as const;
/** A PWG 5101.1 self-describing name, as a profile has it. */
const sizeName = { ...printerSchema.properties.trays.items.properties.size, maxLength: 100 } as const;

const sheetsLoaded = field('loaded', { type: 'integer', minimum: 0, maximum: 10_000 });
export const trayLoading = {
  ...sheetsLoaded,
  properties: {
    ...sheetsLoaded.properties,
    size: { ...sizeName, description: 'Left out, of the size that lay there.' },
  },
} as const;
export const trayPulling = field('pulled', { type: 'boolean' });
export const printerFault = field('fault', { enum: ['media-jam', 'door-open', null] });
export const stackRefeeding = field('turned', { type: 'boolean' });
/** Someone takes away all that lies in the output. */
export const stackTaking = field('taken', { const: true });
/** What is sent to a printer waits here. */
export const holdingBack = field('held', { type: 'boolean' });
/** The sending that another one comes before; null: it comes after all. */
export const sendingPlace = field('before', { type: ['string', 'null'], format: 'uuid' });
export const printerPausing = field('paused', { type: 'boolean' });

/** What a person says of the paper in a tray; null: what the printer says holds again. */
export const saidOfPaper = {
  type: 'object',
  additionalProperties: false,
  minProperties: 1,
  properties: {
    price: { type: 'number', minimum: 0, maximum: 1000, description: 'Of a sheet.' },
    weight: { type: ['number', 'null'], minimum: 20, maximum: 600, description: 'Grams a square metre.' },
    type: { type: ['string', 'null'], minLength: 1, maxLength: 60, description: 'A PWG 5101.1 media type.' },
    size: {
      ...sizeName,
      type: ['string', 'null'],
      description: 'A PWG 5101.1 size name, where it is not the one reported.',
    },
  },
} as const;

export const fileName = {
  type: 'object',
  required: ['name'],
  properties: { name: { type: 'string', minLength: 1, maxLength: 255 } },
} as const;

const first = {
  type: 'boolean',
  description: 'Whether the first pages of what takes long are answered with; news of the file tell of the whole.',
} as const;

export const uploaded = {
  type: 'object',
  required: ['name'],
  properties: {
    name: fileName.properties.name,
    form: {
      type: 'string',
      maxLength: 20_000,
      description: 'How it is laid out, where it has no pages of its own: JSON, as in a ticket.',
    },
    first,
  },
} as const;

/** How a document that has no pages of its own is laid out. */
export const formOfFile = {
  type: 'object',
  additionalProperties: false,
  required: ['form'],
  properties: { form: { type: 'object', description: 'As in a ticket.' }, first },
} as const;

export const knownPages = {
  type: 'object',
  properties: {
    from: { type: 'integer', minimum: 0, description: 'How many pages are known already.' },
    look: { type: 'integer', minimum: 1, description: 'A page that is looked at just now: it is read before others.' },
  },
} as const;

/** A page of the list of jobs. */
export const whichJobs = {
  type: 'object',
  properties: {
    search: { type: 'string', maxLength: 200, description: 'What its title, or the name of a document, holds.' },
    from: { type: 'integer', minimum: 0, description: 'How many are passed over; 0 unless given.' },
    most: { type: 'integer', minimum: 1, maximum: 100, description: 'How many are told of; 50 unless given.' },
  },
} as const;

/** The name under which something is saved; left out, the job's title. */
export const savedName = {
  type: 'object',
  properties: { name: { type: 'string', minLength: 1, maxLength: 200 } },
} as const;

const name = { type: 'string', minLength: 1, maxLength: 120, pattern: '\\S' } as const;
const starts = {
  enum: ['house', 'printer', null],
  description: 'Which new jobs start from it: all, those for its printer, or none.',
} as const;
const offered = { type: 'boolean', description: 'Whether other programs can print to it.' } as const;
const ofPrinter = { type: ['string', 'null'], description: 'The printer whose trays it names.' } as const;

export const newSetup = {
  type: 'object',
  additionalProperties: false,
  required: ['name', 'ticket'],
  properties: { name, ticket: anyTicket, printerId: ofPrinter },
} as const;

const begunFrom = {
  ...revision,
  description:
    'Which state the change begins from, refused where that is past; left out, it is made of whatever stands.',
} as const;

/** What is left out stays as it is. */
export const changedSetup = {
  type: 'object',
  additionalProperties: false,
  minProperties: 1,
  properties: { name, ticket: anyTicket, printerId: ofPrinter, starts, offered, revision: begunFrom },
} as const;

export const newSeries = {
  type: 'object',
  additionalProperties: false,
  required: ['title', 'setup', 'printerId'],
  properties: { title: name, setup: anyTicket, printerId: { type: 'string' } },
} as const;

/** Another set-up or printer is for all files that have no settings of their own. */
export const changedSeries = {
  type: 'object',
  additionalProperties: false,
  minProperties: 1,
  properties: { title: name, setup: anyTicket, printerId: { type: 'string' }, revision: begunFrom },
} as const;

/** Files that were taken in, and such as could not be, with the reason. */
export const seriesFiles = {
  type: 'object',
  additionalProperties: false,
  required: ['files'],
  properties: {
    files: {
      type: 'array',
      minItems: 1,
      maxItems: 1000,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['name'],
        properties: {
          name: { type: 'string', minLength: 1, maxLength: 255 },
          file: { type: 'string', description: 'Its id.' },
          trouble: { type: 'string', maxLength: 1000 },
        },
      },
    },
  },
} as const;

export const rowSkipping = field('skipped', { type: 'boolean' });
const rowIds = { type: 'array', maxItems: 10_000, items: { type: 'string' } } as const;

/** The ids of the files of a series in the order in which they are to be printed, and of those to be taken out. */
export const seriesOrder = {
  type: 'object',
  additionalProperties: false,
  required: ['rows'],
  properties: { rows: rowIds, out: rowIds },
} as const;

/** What a person saw of a series before sending it. */
export const seriesStart = {
  type: 'object',
  additionalProperties: false,
  required: ['sheets'],
  properties: {
    sheets: { type: 'integer', minimum: 1 },
    confirmed: toSend.properties.confirmed,
    key: sendingKey,
    by,
    seal: { ...sealOfManyFields, description: `${seal.description} Of all files that are printed, in their order.` },
  },
} as const;

/** Whether the file that went wrong is printed once more, from its beginning. */
export const seriesResuming = field('again', { type: 'boolean' });

export type SetupStart = (typeof starts)['enum'][number];
export type NewSetup = Described<typeof newSetup>;
export type ChangedSetup = Described<typeof changedSetup>;
export type ChangedSeries = Described<typeof changedSeries>;
export type SeriesFile = Described<typeof seriesFiles>['files'][number];
export type PrinterAccess = Described<typeof printerAccess>;
export type SaidOfPaper = Described<typeof saidOfPaper>;
