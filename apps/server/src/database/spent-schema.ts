import type { CheaperName, SpentKind } from '@foglio/core';
import { date, index, integer, numeric, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';

/** Money, to a hundredth of a cent, so that sums are exact. */
const money = (name: string) => numeric(name, { precision: 14, scale: 4, mode: 'number' }).notNull();

/**
 * What each delivery came to, kept when the records of its sending, job and printer have gone: hence no references, and names as
 * they were.
 */
export const spent = pgTable(
  'spent',
  {
    /** Its sending's. */
    id: uuid('id').primaryKey(),
    /** When it was over, by the server's clock. */
    day: date('day').notNull(),
    printerId: text('printer_id').notNull(),
    printerName: text('printer_name').notNull(),
    jobId: uuid('job_id'),
    title: text('title').notNull(),
    /** The saved set-up that it was printed by; null: by none. */
    setupId: uuid('setup_id'),
    setupName: text('setup_name'),
    kind: text('kind').$type<SpentKind>().notNull(),
    /** Of what came out. */
    sheets: integer('sheets').notNull(),
    twoSidedSheets: integer('two_sided_sheets').notNull(),
    sides: integer('sides').notNull(),
    colorSides: integer('color_sides').notNull(),
    graySides: integer('gray_sides').notNull(),
    paper: money('paper'),
    printing: money('printing'),
    gray: money('gray'),
    savedSheets: integer('saved_sheets').notNull(),
    saved: money('saved'),
    /** Why it was printed once more; null: it was not. */
    again: text('again').$type<'broken-off' | 'wished'>(),
    /** How what it prints once more had ended, in a sentence. */
    againSaid: text('again_said'),
    cheaperWay: text('cheaper_way').$type<CheaperName>(),
    cheaperSaves: money('cheaper_saves'),
    cheaperText: numeric('cheaper_text', { precision: 8, scale: 3, mode: 'number' }),
  },
  (table) => [index('spent_day').on(table.day), index('spent_title').on(table.title, table.day)],
);

/** Its sheets, by paper. */
export const spentPapers = pgTable(
  'spent_papers',
  {
    id: uuid('id')
      .notNull()
      .references(() => spent.id, { onDelete: 'cascade' }),
    /** Those of the delivery, so that papers are added up alone. */
    day: date('day').notNull(),
    printerId: text('printer_id').notNull(),
    size: text('size').notNull(),
    /** Empty: not known. */
    type: text('type').notNull(),
    sheets: integer('sheets').notNull(),
    cost: money('cost'),
  },
  (table) => [primaryKey({ columns: [table.id, table.size, table.type] }), index('spent_papers_day').on(table.day)],
);
