import { marksSchema, printerSchema, sheetSchemas } from '@foglio/core';
import { count, listOfWords, maybeWords, moment, orientation, position, record, words, type Described } from './record';

/** What came out of a printer, and a job as a printer sees it. */

const printedFace = record(
  'Printed face',
  { job: position, document: position, page: position },
  { description: 'A page of one of the files that a printer was sent.' },
);

const maybeFace = { anyOf: [printedFace, { type: 'null' }] } as const;

const finished = record(
  'What was done to a delivered sheet',
  { finishings: printerSchema.properties.finishings, each: { enum: ['set', 'document', 'sheet'] } },
  { description: 'Staples, holes, folds, by the places of the medium (RFC 8011, 5.2.6); to which sheets together.' },
);

export const deliveredSheet = record(
  'Delivered sheet',
  {
    job: { ...position, description: 'The number the printer gave its job.' },
    document: { ...position, description: 'Which of the job’s documents.' },
    index: position,
    set: position,
    tray: words,
    sides: words,
    front: position,
    back: { type: ['integer', 'null'] },
    upper: maybeFace,
    lower: maybeFace,
    spoilt: { type: 'boolean', description: 'Something was printed over what stood there.' },
    at: moment,
  },
  {
    description:
      'As the printer delivered it: what lies up and what lies down in the output, null where nothing is printed.',
    optional: { ...sheetSchemas, finished },
  },
);

export const sheetAsSeen = record('Sheet as the printer sees it', {
  job: position,
  document: position,
  sheet: { ...count, description: 'Its number in the plan; 0: it stands in no set.' },
  kind: { enum: ['sheet', 'slip', 'information'], description: 'What stands in no set is one of the last two.' },
  pages: { type: 'array', items: position },
  source: { ...maybeWords, description: 'The tray’s id; null: the printer chooses by the size of the page.' },
  sides: words,
  orientation,
  because: { ...words, description: 'Which attributes say so.' },
});

export const seenRecord = record('Job as the printer sees it', {
  way: words,
  reason: words,
  jobs: position,
  sheets: { type: 'array', items: sheetAsSeen },
});

const pageName = record('Page of a document', { document: position, page: position });
const pageNames = { type: 'array', items: pageName } as const;

const pageSent = record('Page of a file sent', { ...printedFace.properties, cells: pageNames });

export const stackRecord = record(
  'Stack',
  { delivered: { type: 'array', items: deliveredSheet }, sheets: count },
  {
    optional: {
      documents: { ...listOfWords, description: 'Names of the ticket’s documents, in order.' },
      pages: { type: 'array', items: pageSent, description: 'What stands on each page of the files that were sent.' },
    },
  },
);

export const sentSheet = record('Sheet of a set', {
  tray: { ...maybeWords, description: 'Its id; null: the printer chooses.' },
  slip: { type: 'boolean', description: 'Blank, between documents.' },
  orientation,
  front: pageNames,
  back: { anyOf: [pageNames, { type: 'null' }], description: 'Null: it is not printed.' },
});

export const sheetsRecord = record('Sheets of a sending', {
  sets: position,
  documents: { ...listOfWords, description: 'Their names, in the order of the ticket.' },
  sheets: { type: 'array', items: sentSheet, description: 'Of a set, in order.' },
  prints: { anyOf: [marksSchema, { type: 'null' }], description: 'Null: all of them.' },
  missing: {
    anyOf: [record('Sheet of one set', { set: position, sheet: position }), { type: 'null' }],
    description: 'The first that did not come out, by what the printer counted; null: none, or it cannot be told.',
  },
});

export type SentSheet = Described<typeof sentSheet>;
export type SheetsRecord = Described<typeof sheetsRecord>;
export type PrintedFace = Described<typeof printedFace>;
export type DeliveredSheet = Described<typeof deliveredSheet>;
export type PageSent = Described<typeof pageSent>;
export type StackRecord = Described<typeof stackRecord>;
export type SheetAsSeen = Described<typeof sheetAsSeen>;
export type SeenRecord = Described<typeof seenRecord>;
