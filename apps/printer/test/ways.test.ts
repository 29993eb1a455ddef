import { CASES, FINISHED_CASES } from './cases';
import { PRINTERS, tryOut } from './printing';

/**
 * Tickets times printers: what each printer delivers, by its own record, is what the core says it will deliver, sheet by
 * sheet; or a check of level stop says why not, before anything is sent.
 */

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
  'stapled, landscape': ['plain, 1 job', 'stop finishing-unknown', 'stop finishing-unknown', 'plain, 1 job'],
  'stapled, from two trays': [
    'overrides, 1 job',
    'stop finishing-unknown',
    'stop finishing-unknown',
    'documents, 1 job',
  ],
  'each document stapled, face up': [
    'part-jobs, 4 jobs',
    'stop output-bin-unknown',
    'stop output-bin-unknown',
    'stop output-bin-unknown',
  ],
  'each document stapled': [
    'part-jobs, 4 jobs',
    'stop finishing-unknown',
    'stop finishing-unknown',
    'part-documents, 1 job',
  ],
  'each document stapled, slips between': [
    'part-jobs, 6 jobs',
    'stop finishing-unknown',
    'stop finishing-unknown',
    'part-jobs, 6 jobs',
  ],
  'booklet, stitched in its fold': [
    'plain, 1 job',
    'stop finishing-unknown',
    'stop finishing-unknown',
    'stop finishing-unknown',
  ],
  'punched, slips between sets': ['plain, 1 job', 'stop finishing-unknown', 'stop finishing-unknown', 'plain, 1 job'],
  'information sheet and slips': ['plain, 1 job', 'plain, 1 job', 'plain, 1 job', 'plain, 1 job'],
};

test.each(Object.keys({ ...CASES, ...FINISHED_CASES }))(
  '%s: the way, and every sheet as planned',
  async (name) => {
    const found: string[] = [];
    for (const printer of PRINTERS) found.push(await tryOut(name, printer));
    expect(found).toEqual(TABLE[name]);
  },
  120_000,
);

/** The same with staples and holes, on the two printers that have a finisher. */
const FINISHED: Record<string, readonly string[]> = {
  uniform: ['plain, 1 job', 'plain, 1 job'],
  'letterhead first': ['overrides, 1 job', 'stop tray-wrong-paper'],
  contract: ['overrides, 1 job', 'stop tray-unknown'],
  'letter and legal': ['stop no-tray-for-paper', 'stop no-tray-for-paper'],
  'A4 and letter': ['stop no-tray-for-paper', 'by-size, 1 job'],
  'A3 among A4': ['overrides, 1 job', 'stop no-tray-for-paper'],
  'booklet with a cover': ['overrides, 1 job', 'stop tray-unknown'],
  booklet: ['plain, 1 job', 'plain, 1 job'],
  'booklet, then a report': ['overrides, 1 job', 'documents, 1 job'],
  uncollated: ['plain, 1 job', 'plain, 1 job'],
  'slips between sets': ['part-jobs, 5 jobs', 'part-jobs, 5 jobs'],
  'one-sided among two-sided': ['overrides, 1 job', 'documents, 1 job'],
  'A4 and letter, both sides and one': ['stop no-tray-for-paper', 'documents, 1 job'],
  'custom size': ['stop no-tray-for-paper', 'stop no-tray-for-paper'],
  monochrome: ['plain, 1 job', 'plain, 1 job'],
  reverse: ['plain, 1 job', 'plain, 1 job'],
  'four a side': ['plain, 1 job', 'plain, 1 job'],
  '258 pages': ['plain, 1 job', 'plain, 1 job'],
  'information sheet': ['part-jobs, 3 jobs', 'part-jobs, 3 jobs'],
  'information sheet, one-sided, last first': ['part-jobs, 2 jobs', 'part-jobs, 2 jobs'],
  'face up but for its last page': ['overrides, 1 job', 'stop output-bin-unknown'],
  'information sheet and slips': ['part-jobs, 6 jobs', 'part-jobs, 6 jobs'],
};

test.each(Object.keys(CASES))(
  '%s, stapled and punched',
  async (name) => {
    const finishings = ['staple-top-left', 'punch-dual-left'];
    const found: string[] = [];
    for (const printer of [PRINTERS[0]!, PRINTERS[3]!])
      found.push(await tryOut(name, printer, null, { finishings, collate: true }));
    expect(found).toEqual(FINISHED[name]);
  },
  120_000,
);
