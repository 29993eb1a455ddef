import {
  aboutDocumentSchema,
  headingSchema,
  laidOutSchema,
  pageFactsSchema,
  portionSchema,
  ticketSchema,
} from '@foglio/core';
import { certificate, printerRecord } from './printer-records';
import { PROBLEMS, type ProblemCode } from './problems';
import {
  count,
  id,
  listOfWords,
  maybeWords,
  moment,
  orientation,
  position,
  record,
  words,
  type Described,
} from './record';

/** What the API gives and takes, as JSON Schemas; the types follow from them. */

const fileFields = {
  id,
  name: words,
  sha256: { ...words, description: 'Of its bytes as they are kept, hexadecimal.' },
  pages: { type: 'array', items: pageFactsSchema },
  /** What the file says of itself. */
  about: aboutDocumentSchema,
  remarks: { ...listOfWords, description: 'What a person should know of the file, in sentences.' },
  read: { ...count, description: 'Of how many pages, from the first, all facts are known.' },
} as const;

/** Read after a file was taken in, and before the details of its pages. */
const later = {
  outline: {
    type: 'array',
    items: headingSchema,
    description: 'Not there until it has been read; page labels are not there either until then.',
  },
} as const;

/** Of a document that has no pages of its own. */
const laidOut = { laid: laidOutSchema } as const;

export const fileRecord = record('File', { ...fileFields, bytes: count }, { optional: { ...later, ...laidOut } });

export const fileBrief = record('File in brief', {
  id,
  name: words,
  bytes: count,
  pages: { ...count, description: 'How many it has.' },
});

const pagesAhead = record(
  'Pages ahead',
  { from: { ...count, description: 'The first of them, counted from 1.' }, pages: fileFields.pages },
  { description: 'The pages about the one that is looked at, as far as they are known.' },
);

export const factsRecord = record(
  'New facts',
  { read: count, pages: fileFields.pages },
  {
    description:
      'What became known of pages since they were last asked for; from 0, once the outline is known, all pages with their labels.',
    optional: { ...later, ahead: pagesAhead },
  },
);

export const jobDocument = record('Document of a job', fileFields, {
  description: 'Facts for planning, and the id by which its bytes are fetched.',
  optional: { ...later, ...laidOut },
});

/** How a job came that was printed to Foglio. */
export const cameBy = record('How a job came', {
  queue: { ...words, description: 'What it was printed to, in words.' },
  name: { ...words, description: 'As the program calls it.' },
  user: words,
  at: moment,
  waits: { ...maybeWords, description: 'Why it was not sent on by itself, in a sentence.' },
  remarks: { ...listOfWords, description: 'What of the program’s wishes could not be had.' },
});

const came = { anyOf: [cameBy, { type: 'null' }], description: 'Null: it was set up here.' } as const;

export const jobRecord = record('Job', {
  id,
  ticket: ticketSchema,
  revision: { ...position, description: 'Goes up with every change.' },
  printerId: words,
  updatedAt: moment,
  lastSentAt: { type: ['string', 'null'], format: 'date-time' },
  documents: { type: 'array', items: jobDocument },
  came,
});

export const savedJob = record('Saved job', { id, revision: position });

export const stripSheet = record('Sheet of a strip', {
  tray: maybeWords,
  twoSided: { type: 'boolean' },
  orientation,
  size: words,
});

export const jobBrief = record(
  'Job in brief',
  {
    id,
    ticket: ticketSchema,
    printerId: words,
    updatedAt: moment,
    lastSentAt: { type: ['string', 'null'], format: 'date-time' },
    names: { ...listOfWords, description: 'Of its documents.' },
    came,
  },
  {
    description: 'For a list: the totals and the first sheets, or what is wrong with the set-up.',
    optional: {
      sheets: count,
      sheetsPerSet: count,
      strip: { type: 'array', items: stripSheet },
      trouble: words,
    },
  },
);

export const jobList = record('Jobs', {
  jobs: { type: 'array', items: jobBrief },
  total: { ...count, description: 'Of all that were asked for, on whatever page.' },
});

export const setupRecord = record(
  'Set-up',
  {
    id,
    name: words,
    ticket: ticketSchema,
    printerId: { ...maybeWords, description: 'The printer whose trays it names.' },
    starts: {
      enum: ['house', 'printer', null],
      description: 'Which new jobs start from it: all, those for its printer, none.',
    },
    queue: { ...maybeWords, description: 'The last part of its address as a printer; null: it is not offered as one.' },
    revision: { ...position, description: 'Goes up with every change.' },
    updatedAt: moment,
  },
  { description: 'A ticket under a name; in the place of its documents stands the file “*”.' },
);

export const SENDING_STATES = [
  'queued',
  'sending',
  'printing',
  'held',
  'turning',
  'proofed',
  'completed',
  'canceled',
  'aborted',
  'failed',
  'interrupted',
  'uncertain',
] as const;

export const sendingRecord = record(
  'Sending',
  {
    id,
    jobId: { type: ['string', 'null'], format: 'uuid', description: 'Null: the job was removed.' },
    printerId: words,
    title: words,
    copies: position,
    state: {
      enum: SENDING_STATES,
      description:
        'uncertain: nobody but a person at the printer can know whether it was printed. proofed: the first set is out, the others wait for a person.',
    },
    message: maybeWords,
    sheets: count,
    sheetsDone: count,
    seconds: {
      type: ['number', 'null'],
      description: 'How long it takes by the printer’s profile; null where that is not known.',
    },
    printerJobs: { type: 'array', items: position, description: 'Numbers the printer gave its jobs.' },
    pass: { enum: [1, 2, null], description: 'Of a job in two passes: which one it is at; null: it goes in one.' },
    handling: {
      enum: ['turn-over', 'as-it-lies', null],
      description: 'Of a job in two passes: how the stack goes back in between them.',
    },
    movable: { type: 'boolean', description: 'Whether it may be put before or after others that wait.' },
    turnAt: { ...moment, description: 'Those of a printer are sent in the order of this.' },
    reason: { ...maybeWords, description: 'By which way it goes and why; null before it is being sent.' },
    portion: {
      anyOf: [...portionSchema.anyOf, { type: 'null' }],
      description:
        'What it prints of its ticket: the first set, all the others, or sheets printed again; null: all of it.',
    },
    partOf: {
      type: ['string', 'null'],
      format: 'uuid',
      description: 'The sending whose other sets, or whose sheets again, it prints.',
    },
    createdAt: moment,
    updatedAt: moment,
  },
  { description: 'One sending of a job: what was asked for then, and how far it is.' },
);

export const seriesRow = record('File of a series', {
  id,
  name: words,
  trouble: { ...maybeWords, description: 'Why it could not be taken in.' },
  skipped: { type: 'boolean', description: 'Left out by a person.' },
  changed: { type: 'boolean', description: 'Has settings of its own.' },
  file: { type: ['string', 'null'], format: 'uuid' },
  jobId: { type: ['string', 'null'], format: 'uuid', description: 'The job by which it is set up and sent.' },
  ticket: { anyOf: [ticketSchema, { type: 'null' }] },
  sending: { anyOf: [sendingRecord, { type: 'null' }], description: 'How its latest sending goes.' },
});

const about = <const T extends string>(topic: T, description: string) =>
  record(`News of a ${topic}`, { topic: { const: topic }, id: words }, { description });

/** What a listener is told. What is short is told whole, of the rest that it changed. */
export const newsRecord = {
  title: 'News',
  anyOf: [
    record('News of a sending', { topic: { const: 'sending' }, sending: sendingRecord }),
    record('News of a printer', { topic: { const: 'printer' }, printer: printerRecord }),
    about('no printer', 'A printer was removed.'),
    record(
      'News of a job',
      { topic: { const: 'job' }, id, revision: count },
      { description: 'Revision 0: it is gone.' },
    ),
    about('file', 'More became known of a document; by its SHA-256.'),
    about('series', 'It changed, or what is under way of it.'),
    about('identify', 'A program wants a person to see which printer a queue is; by its name.'),
    about('spend', 'A delivery was added to what was spent; by its sending.'),
    about('setup', 'A set-up was saved, changed or removed.'),
    about('incoming', 'Another program printed, or what becomes of that changed.'),
    record(
      'News of the database',
      { topic: { const: 'database away' } },
      {
        description: 'It does not answer. The connection ends once it does again.',
      },
    ),
    record('Beat', { topic: { const: 'beat' } }, { description: 'Nothing new: the connection stands.' }),
  ],
} as const;

/** Where other programs can print to. */
export const queueRecord = record('Queue', {
  name: words,
  title: words,
  address: { ...words, description: 'By which programs print to it: an IPP URI.' },
  setupId: { type: ['string', 'null'], format: 'uuid', description: 'Null: the Desk.' },
});

export const incomingRecord = record('Job that was printed to Foglio', {
  id: position,
  queue: words,
  name: words,
  user: words,
  at: moment,
  state: { enum: ['open', 'came', 'waiting', 'sent', 'canceled', 'aborted'] },
  message: { ...maybeWords, description: 'Why it waits, or ended.' },
  jobId: { type: ['string', 'null'], format: 'uuid', description: 'The job on the Desk; null: it is gone.' },
  sendingId: { type: ['string', 'null'], format: 'uuid' },
});

const seriesFields = {
  id,
  title: words,
  printerId: words,
  state: { enum: ['draft', 'running', 'paused', 'done'] },
  message: { ...maybeWords, description: 'Why it is paused.' },
  createdAt: moment,
  startedAt: { type: ['string', 'null'], format: 'date-time' },
} as const;

export const seriesRecord = record('Series', {
  ...seriesFields,
  revision: { ...position, description: 'Goes up with every change of it or of its files.' },
  setup: ticketSchema,
  rows: { type: 'array', items: seriesRow },
});

export const seriesBrief = record('Series in brief', { ...seriesFields, files: count });

export const problemRecord = {
  title: 'Problem',
  description: 'What the server says when it refuses (RFC 9457); further members tell more of some codes.',
  type: 'object',
  required: ['type', 'title', 'status', 'detail', 'code'],
  properties: {
    type: words,
    title: words,
    status: { type: 'integer', minimum: 400, maximum: 599 },
    detail: { ...words, description: 'What is wrong here and what to do, in a sentence.' },
    code: { enum: Object.keys(PROBLEMS) as ProblemCode[] },
    certificate: { ...certificate, description: 'Of a printer whose certificate nobody vouches for.' },
    trouble: { ...words, description: 'Of a file that cannot be used: why, in one word.' },
    cautions: {
      type: 'array',
      items: record('Caution', { code: words, message: words }),
      description: 'What must be confirmed first, each by its code.',
    },
  },
} as const;

const bytes = { ...count, description: 'In bytes.' } as const;

export const healthRecord = record('Health', {
  uptimeSeconds: count,
  memory: { ...bytes, description: 'Of the server’s process alone, in bytes.' },
  holds: record('What is held', {
    jobs: count,
    setups: count,
    files: count,
    documents: count,
    documentBytes: bytes,
    sources: count,
    sourceBytes: bytes,
    sendings: count,
    incoming: count,
    /** What is still to be done. */
    tasks: count,
    databaseBytes: bytes,
  }),
  /** How much was printed by sendings whose records went. */
  past: {
    type: 'array',
    items: record('A month of a printer', { printerId: words, month: words, sendings: count, sheets: count }),
  },
});

export type FileRecord = Described<typeof fileRecord>;
export type FileBrief = Described<typeof fileBrief>;
export type FactsRecord = Described<typeof factsRecord>;
export type JobDocument = Described<typeof jobDocument>;
export type JobRecord = Described<typeof jobRecord>;
export type SavedJob = Described<typeof savedJob>;
export type SetupRecord = Described<typeof setupRecord>;
export type SeriesRow = Described<typeof seriesRow>;
export type SeriesRecord = Described<typeof seriesRecord>;
export type SeriesBrief = Described<typeof seriesBrief>;
export type QueueRecord = Described<typeof queueRecord>;
export type IncomingRecord = Described<typeof incomingRecord>;
export type CameBy = Described<typeof cameBy>;
export type StripSheet = Described<typeof stripSheet>;
export type JobBrief = Described<typeof jobBrief>;
export type JobList = Described<typeof jobList>;
export type NewsRecord = Described<typeof newsRecord>;
export type SendingState = (typeof SENDING_STATES)[number];
export type SendingRecord = Described<typeof sendingRecord>;
export type Caution = NonNullable<ProblemRecord['cautions']>[number];
export type ProblemRecord = Described<typeof problemRecord>;
