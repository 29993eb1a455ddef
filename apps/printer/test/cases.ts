/** Tickets that are tried on printers. */

const A4 = [595.276, 841.89] as const;
const A3 = [841.89, 1190.551] as const;
const LETTER = [612, 792] as const;
const LEGAL = [612, 1008] as const;
const ODD = [300, 450] as const;

export type PageSize = readonly [number, number];
const pages = (count: number, size: PageSize = A4): PageSize[] => Array.from({ length: count }, () => size);

export interface Case {
  readonly pages: readonly PageSize[];
  readonly ticket: object;
  /** How often the file stands in the ticket. */
  readonly times?: number;
}

const TWO_SIDED = { sides: 'two-sided' };

export const CASES: Readonly<Record<string, Case>> = {
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

/** What is done to the sets. */
export const FINISHED_CASES: Readonly<Record<string, Case>> = {
  'stapled, landscape': {
    pages: pages(5, [A4[1], A4[0]]),
    ticket: { ...TWO_SIDED, copies: 2, finishings: ['staple-top-left'] },
  },
  'stapled, from two trays': {
    pages: pages(5),
    ticket: {
      ...TWO_SIDED,
      copies: 2,
      finishings: ['staple-top-left'],
      routes: [{ pages: '1', tray: 'tray-1', sides: 'one-sided' }],
    },
  },
  'each document stapled, face up': {
    pages: pages(3),
    times: 2,
    ticket: { ...TWO_SIDED, copies: 2, finishings: ['staple-dual-left'], finishEach: 'document', outputBin: 'face-up' },
  },
  'each document stapled': {
    pages: pages(3),
    times: 2,
    ticket: { ...TWO_SIDED, copies: 2, finishings: ['staple-dual-left'], finishEach: 'document' },
  },
  'each document stapled, slips between': {
    pages: pages(3),
    times: 2,
    ticket: {
      copies: 2,
      finishings: ['staple-top-left'],
      finishEach: 'document',
      slips: { between: 'documents' },
    },
  },
  'booklet, stitched in its fold': {
    pages: pages(10),
    ticket: { ...TWO_SIDED, copies: 2, layout: { kind: 'booklet' }, finishings: ['saddle-stitch', 'fold-half'] },
  },
  'punched, slips between sets': {
    pages: pages(3),
    ticket: { copies: 3, slips: { between: 'sets' }, finishings: ['punch-dual-left'] },
  },
};
