import type { SendingState, SaidOfPaper, SetupStart } from '@foglio/api';
import type { Wishes } from '@foglio/ipp/serving';
import {
  storedPrinter,
  storedTicket,
  type AboutDocument,
  type Heading,
  type LaidOut,
  type PageFacts,
  type Plan,
  type Portion,
} from '@foglio/core';
import type { StoredAccess } from '../printers/stored-access';
import type { JobEnd } from '../sendings/job-end';
import { eq, sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  bigint,
  boolean,
  customType,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { storedAs } from './stored-as';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const moment = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow();

/** An uploaded document as it was taken in, an open PDF, stored once however often it is uploaded. */
export const contents = pgTable('contents', {
  id: uuid('id').primaryKey().defaultRandom(),
  /** Of the bytes as they are stored, hexadecimal. */
  sha256: text('sha256').unique(),
  bytes: bigint('bytes', { mode: 'number' }).notNull().default(0),
  pages: jsonb('pages').$type<readonly PageFacts[]>().notNull().default([]),
  /** Of how many pages, from the first, all facts are known; of those left over there will be none where reading failed. */
  detailsRead: integer('details_read').notNull().default(0),
  outline: jsonb('outline').$type<readonly Heading[]>().notNull().default([]),
  about: jsonb('about').$type<AboutDocument>().notNull().default({}),
  /** What a person should know of the file, in sentences. */
  remarks: jsonb('remarks').$type<readonly string[]>().notNull().default([]),
  /** When it last came. */
  createdAt: moment('created_at'),
});

export const contentChunks = pgTable(
  'content_chunks',
  {
    contentId: uuid('content_id')
      .notNull()
      .references(() => contents.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.contentId, table.position] })],
);

/** A document without pages of its own as it came, from which it is laid out in other forms; once however often it is uploaded. */
export const sources = pgTable('sources', {
  id: uuid('id').primaryKey().defaultRandom(),
  /** Of its bytes, hexadecimal. */
  sha256: text('sha256').notNull().unique(),
  bytes: bigint('bytes', { mode: 'number' }).notNull(),
  createdAt: moment('created_at'),
});

export const sourceChunks = pgTable(
  'source_chunks',
  {
    sourceId: uuid('source_id')
      .notNull()
      .references(() => sources.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sourceId, table.position] })],
);

/** An upload, or another form of one: a name for some content. */
export const files = pgTable(
  'files',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    contentId: uuid('content_id')
      .notNull()
      .references(() => contents.id),
    name: text('name').notNull(),
    /** What it was laid out from; null: it has pages of its own. */
    sourceId: uuid('source_id').references(() => sources.id),
    laid: jsonb('laid').$type<LaidOut>(),
    createdAt: moment('created_at'),
    /** Since when nothing refers to it, as far as was looked; null: something does, or nobody looked yet. */
    leftSince: timestamp('left_since', { withTimezone: true }),
  },
  (table) => [index('files_source').on(table.sourceId), index('files_content').on(table.contentId)],
);

/** What a person said of a tray's paper, and which size the printer reported then. */
export type SaidPaper = Omit<SaidOfPaper, 'size'> & {
  readonly size: string;
  /** The size that lies there, where it is another. */
  readonly holds?: string;
};

export const printers = pgTable('printers', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  uri: text('uri').notNull(),
  /** Where a simulated printer shows its panel and output; null for a real one. */
  panel: text('panel'),
  /** In the list of printers, from 0; new jobs are for the first. */
  place: integer('place').notNull().default(0),
  /** As last seen, with what only this side knows of it. */
  profile: storedAs('profile', storedPrinter).notNull(),
  /** What a person said of the paper in a tray, by its id; it holds until the printer reports another size. */
  papers: jsonb('papers').$type<Readonly<Record<string, SaidPaper>>>().notNull().default({}),
  /** What it takes to ask it; null: nothing. */
  access: jsonb('access').$type<StoredAccess>(),
  seenAt: moment('seen_at'),
  /** How many times as long as by its profile it takes, by what it printed last. */
  pace: real('pace').notNull().default(1),
  /** Nothing more is sent to it until a person says so. */
  heldBack: boolean('held_back').notNull().default(false),
});

export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    ticket: storedAs('ticket', storedTicket).notNull(),
    printerId: text('printer_id')
      .notNull()
      .references(() => printers.id),
    /** Goes up with every change, so that two browser tabs cannot overwrite each other unnoticed. */
    revision: integer('revision').notNull().default(1),
    createdAt: moment('created_at'),
    updatedAt: moment('updated_at'),
    lastSentAt: timestamp('last_sent_at', { withTimezone: true }),
  },
  // As they are listed.
  (table) => [index('jobs_listed').on(table.updatedAt.desc().nullsFirst(), table.id)],
);

/** A saved set-up: a ticket without its documents, under a name. */
export const setups = pgTable(
  'setups',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    name: text('name').notNull(),
    ticket: storedAs('ticket', storedTicket).notNull(),
    /** Whose trays it names. */
    printerId: text('printer_id').references(() => printers.id, { onDelete: 'set null' }),
    /** Which new jobs start from it: all for which there is no other, those for its printer, or none. */
    starts: text('starts').$type<SetupStart>(),
    /** The last part of its address as a printer; null: it is not offered as one. */
    queue: text('queue').unique(),
    /** Goes up with every change. */
    revision: integer('revision').notNull().default(1),
    createdAt: moment('created_at'),
    updatedAt: moment('updated_at'),
  },
  (table) => [
    uniqueIndex('setups_name').on(sql`lower(${table.name})`),
    uniqueIndex('setups_house')
      .on(table.starts)
      .where(eq(table.starts, sql`'house'`)),
    uniqueIndex('setups_printer')
      .on(table.printerId)
      .where(eq(table.starts, sql`'printer'`)),
  ],
);

/** A job that another program printed to Foglio. */
export const incoming = pgTable(
  'incoming',
  {
    /** Its job-id (RFC 8011, 5.3.2). */
    id: integer('id').primaryKey().generatedAlwaysAsIdentity(),
    /** The set-up it was printed to; null: to the Desk. */
    setupId: uuid('setup_id').references(() => setups.id, { onDelete: 'set null' }),
    /** Where it was printed to: "desk", or the queue of a set-up. */
    queue: text('queue').notNull(),
    name: text('name').notNull(),
    /** Who printed it, as the program says. */
    userName: text('user_name').notNull(),
    wishes: jsonb('wishes').$type<Wishes>().notNull(),
    /** Documents still come; all came, and it is not settled what becomes of them; it lies on the Desk; it was sent; it is over. */
    state: text('state')
      .$type<'open' | 'came' | 'waiting' | 'sent' | 'canceled' | 'aborted'>()
      .notNull()
      .default('open'),
    /** Why it waits, or ended, in a sentence. */
    message: text('message'),
    /** What of its wishes could not be had, in sentences. */
    remarks: jsonb('remarks').$type<readonly string[]>().notNull().default([]),
    /** Uploads that came for it, in order. */
    files: jsonb('files').$type<readonly string[]>().notNull().default([]),
    jobId: uuid('job_id').references(() => jobs.id, { onDelete: 'set null' }),
    /** Its sending, where it was printed to a set-up. */
    sendingId: uuid('sending_id').references((): AnyPgColumn => sendings.id),
    createdAt: moment('created_at'),
    updatedAt: moment('updated_at'),
  },
  (table) => [index('incoming_queue').on(table.queue, table.id), index('incoming_job').on(table.jobId)],
);

/** A set-up over many files. */
export const series = pgTable('series', {
  id: uuid('id').primaryKey().defaultRandom(),
  title: text('title').notNull(),
  setup: storedAs('setup', storedTicket).notNull(),
  printerId: text('printer_id')
    .notNull()
    .references(() => printers.id),
  /** Before it is sent; files are sent one after the other; nothing more of it is sent until it goes on. */
  state: text('state').$type<'draft' | 'running' | 'paused'>().notNull().default('draft'),
  /** Why it is paused, in a sentence. */
  message: text('message'),
  /** Goes up with every change of it or of its files, so that what is sent is what was planned. */
  revision: integer('revision').notNull().default(1),
  /** Of its sending, made by who sends: what comes again with it is the same sending. */
  key: text('key').unique(),
  createdAt: moment('created_at'),
  startedAt: timestamp('started_at', { withTimezone: true }),
});

/** A file of a series. */
export const seriesRows = pgTable(
  'series_rows',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seriesId: uuid('series_id')
      .notNull()
      .references(() => series.id, { onDelete: 'cascade' }),
    /** In the order of printing, from 0. */
    place: integer('place').notNull(),
    name: text('name').notNull(),
    /** Null: the file could not be taken in. */
    jobId: uuid('job_id').references(() => jobs.id, { onDelete: 'cascade' }),
    /** Why the file could not be taken in, in a sentence. */
    trouble: text('trouble'),
    skipped: boolean('skipped').notNull().default(false),
  },
  (table) => [index('series_rows_series').on(table.seriesId, table.place), index('series_rows_job').on(table.jobId)],
);

/** One sending of a job: what was asked for then, and how far it is. */
export const sendings = pgTable(
  'sendings',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    /** Of one sending, made by who sends: what comes again with it is the same sending. */
    key: text('key').unique(),
    /** The moment that texts on it tell, as the person saw it, "2026-09-01T14:05"; null: when it was entered. */
    moment: text('moment'),
    jobId: uuid('job_id').references(() => jobs.id, { onDelete: 'set null' }),
    printerId: text('printer_id')
      .notNull()
      .references(() => printers.id),
    ticket: storedAs('ticket', storedTicket).notNull(),
    /** The series it is of, whose files are sent one after the other. */
    seriesId: uuid('series_id').references(() => series.id, { onDelete: 'set null' }),
    /** The printer as it was when the person saw the plan; the plan follows from this, the ticket and the facts. */
    profile: storedAs('profile', storedPrinter).notNull(),
    /** As its printer shows who sent it; null: nobody said. */
    userName: text('user_name'),
    state: text('state').$type<SendingState>().notNull().default('queued'),
    message: text('message'),
    sheets: integer('sheets').notNull(),
    /** Sides with something on them; null: entered before they were counted. */
    sides: integer('sides'),
    /** What it comes to; null: entered before this was kept, or of a series. */
    tally: jsonb('tally').$type<Plan['tally']>(),
    sheetsDone: integer('sheets_done').notNull().default(0),
    /** Numbers the printer gave its jobs, in order; more than one where it cannot take the plan as one. */
    printerJobs: jsonb('printer_jobs').$type<readonly number[]>().notNull().default([]),
    /** How those that are over ended, by their numbers: printers forget. */
    jobEnds: jsonb('job_ends').$type<Readonly<Record<number, JobEnd>>>().notNull().default({}),
    /** How many jobs it goes as. */
    parts: integer('parts').notNull().default(1),
    /** Of a job in two passes: the jobs that printed its fronts, once it is at its backs. */
    earlierJobs: jsonb('earlier_jobs').$type<readonly number[]>().notNull().default([]),
    /** Of a job in two passes: which one it is at, 1 or 2; null: it goes in one. */
    pass: integer('pass').$type<1 | 2>(),
    /** Of a job in two passes: how the stack goes back in between them. */
    handling: text('handling').$type<'turn-over' | 'as-it-lies'>(),
    /** Of beginning this pass, made by who says that the stack is in: what comes again with it begins nothing twice. */
    passKey: text('pass_key').unique(),
    /** What it prints of its ticket; null: all of it. */
    portion: jsonb('portion').$type<Portion>(),
    /** The sending whose other sets, or whose sheets again, it prints. */
    partOf: uuid('part_of').references((): AnyPgColumn => sendings.id, { onDelete: 'set null' }),
    /** The sending that it prints once more, all or some of it. */
    againOf: uuid('again_of').references((): AnyPgColumn => sendings.id, { onDelete: 'set null' }),
    /** By which way it goes and why, in words; null before it is being sent. */
    reason: text('reason'),
    /** How often sending was begun and put off, and until when it is put off. */
    attempts: integer('attempts').notNull().default(0),
    retryAt: timestamp('retry_at', { withTimezone: true }),
    /** When its printer had all of it first, and when it was over. */
    printingAt: timestamp('printing_at', { withTimezone: true }),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** Sendings of a printer are sent in the order of this: when they were entered, unless a person put one before another. */
    turnAt: moment('turn_at'),
    /** Number of the server process that is sending it; its lock tells whether that process still lives. */
    server: integer('server'),
    createdAt: moment('created_at'),
    updatedAt: moment('updated_at'),
  },
  (table) => [
    index('sendings_state').on(table.state),
    index('sendings_series').on(table.seriesId),
    index('sendings_ended').on(table.printerId, table.endedAt),
  ],
);

/** What is left of sendings whose records went: how much was printed, by printer and month. */
export const pastSendings = pgTable(
  'past_sendings',
  {
    printerId: text('printer_id').notNull(),
    /** Its first day. */
    month: date('month').notNull(),
    sendings: integer('sendings').notNull(),
    sheets: bigint('sheets', { mode: 'number' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.printerId, table.month] })],
);
