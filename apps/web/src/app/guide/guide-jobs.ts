import type { TicketInput } from '@foglio/core';

/** One of the jobs people come for: what to do, and the demo's documents set up so. */
export interface GuideJob {
  /** Of its picture, `public/guide/NAME.png`, too. */
  readonly name: string;
  readonly title: string;
  readonly steps: readonly string[];
  /** Documents of the demo, by their names. */
  readonly files: readonly string[];
  /** Of every document, unless all are printed. */
  readonly pages?: string;
  readonly ticket: Omit<TicketInput, 'version' | 'documents' | 'title'> & Pick<DocumentSettings, 'part'>;
  /** What its picture shows: the lanes, one sheet, or sheets that are joined. */
  readonly shows: 'lanes' | 'sheet' | 'joined';
}

type DocumentSettings = TicketInput['documents'][number];

const A4 = { size: 'iso_a4_210x297mm' };

export const GUIDE_JOBS: readonly GuideJob[] = [
  {
    name: 'contract',
    title: 'A contract: the first page on letterhead, two pages to be signed',
    steps: [
      'Drop the contract on the Desk, and say “both sides” and how many copies in the sentence.',
      'Press page 1 on the left, then the number of the tray with the letterhead.',
      'Choose the pages to be signed, with Ctrl, and press the number of their tray.',
      'Look at the lanes: every sheet, front and back, with its tray. Then send.',
    ],
    files: ['season-contract.pdf'],
    ticket: {
      copies: 2,
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [
        { pages: '1', tray: 'tray-2', sides: 'one-sided' },
        { pages: '6, 9', tray: 'tray-3', sides: 'one-sided' },
      ],
    },
    shows: 'lanes',
  },
  {
    name: 'booklet',
    title: 'A folded booklet with a cover of other paper',
    steps: [
      'Press “1 page a side” and take the booklet.',
      'Under “and also …”, give the cover a tray of its own.',
      '“Leaf through” shows it folded, page after page.',
    ],
    files: ['autumn-programme.pdf'],
    ticket: { copies: 20, layout: { kind: 'booklet', cover: 'tray-3' }, paper: A4, tray: 'tray-1' },
    shows: 'lanes',
  },
  {
    name: 'handout',
    title: 'A handout on as few sheets as can still be read',
    steps: [
      'Open “Other ways”: each way with its sheets, its cost and its smallest text.',
      'Say how small the text may become; the fewest sheets for that are worked out.',
      'Take it. Ctrl+Z takes it back.',
    ],
    files: ['season-contract.pdf'],
    ticket: { sides: 'two-sided', layout: { kind: 'grid', pagesPerSide: 2 }, tray: 'tray-1' },
    shows: 'lanes',
  },
  {
    name: 'flyers',
    title: '120 flyers of two designs, four on a sheet',
    steps: [
      'Take four pages a side, all on A4.',
      'Under “and also …”, say how many pieces you want: the pages are laid again and again.',
      'Add cut marks. What is left over stands beside the sheets.',
    ],
    files: ['flyer.pdf'],
    ticket: {
      pieces: { count: 120 },
      layout: { kind: 'grid', pagesPerSide: 4, marks: 'cut' },
      paper: A4,
      tray: 'tray-1',
    },
    shows: 'sheet',
  },
  {
    name: 'cards',
    title: 'Cards with their backs, one for each guest',
    steps: [
      'Let the file have each front and its back after it.',
      'Take several pages a side, then “Cards: each back behind its own front” under “and also …”.',
      'To cut the whole stack at once, take “Cut and stack” too.',
    ],
    files: ['flyer.pdf'],
    ticket: {
      pieces: { count: 24 },
      layout: { kind: 'grid', pagesPerSide: 4, backs: 'behind', stack: 'cut', marks: 'cut' },
      paper: A4,
      tray: 'tray-1',
    },
    shows: 'sheet',
  },
  {
    name: 'poster',
    title: 'A poster over several sheets',
    steps: [
      'Press “1 page a side” and take the poster.',
      'Say how many sheets across and down, or give a percentage instead.',
      '“Leaf through” shows the sheets joined; marks to join by are under “and also …”.',
    ],
    files: ['autumn-programme.pdf'],
    pages: '1',
    ticket: { layout: { kind: 'tiles', columns: 2, rows: 2, marks: 'join' }, paper: A4, tray: 'tray-1' },
    shows: 'joined',
  },
  {
    name: 'part',
    title: 'A part of a page, as large as fits',
    steps: [
      'Press “in part …” beside the sheet and draw over the page.',
      'Arrow keys and numbers put it right; say whether it is of all pages or of the chosen ones.',
      'Press “made smaller only where needed” and take “As large as fits”.',
    ],
    files: ['season-contract.pdf'],
    pages: '10',
    ticket: { part: { left: 20, top: 25, width: 170, height: 110 }, scale: { mode: 'fit' }, tray: 'tray-1' },
    shows: 'sheet',
  },
  {
    name: 'first-pages',
    title: 'The first page of each of several documents',
    steps: [
      'Drop all of them at once.',
      'Write 1 into the page line and press “For all documents”.',
      'Each sheet says which document it is of.',
    ],
    files: ['season-contract.pdf', 'autumn-programme.pdf', 'flyer.pdf', 'stage-plan.pdf'],
    pages: '1',
    ticket: { paper: A4, tray: 'tray-1' },
    shows: 'lanes',
  },
  {
    name: 'binding',
    title: 'Pages to be bound, with room at the bound edge',
    steps: [
      'Take both sides, and under “and also …” the margin for binding.',
      'It lies on the left of fronts and on the right of backs, or at the top of a pad.',
      'Turn a sheet over to see it.',
    ],
    files: ['season-contract.pdf'],
    ticket: { sides: 'two-sided', bindingMargin: 20, tray: 'tray-1' },
    shows: 'sheet',
  },
  {
    name: 'backs',
    title: 'Fronts first, the backs later, by hand',
    steps: [
      'Take both sides, and under “and also …” the fronts alone. Send them.',
      'Put the stack in again as the line above the sheets says.',
      'Take the backs alone, and send them. The order is the one that this printer needs.',
    ],
    files: ['season-contract.pdf'],
    ticket: { sides: 'two-sided', faces: 'backs', tray: 'tray-1' },
    shows: 'lanes',
  },
  {
    name: 'grey',
    title: 'Grey, where colour would be paid for nothing',
    steps: [
      'A note tells of pages that look grey and are coded in colour.',
      'Press its button for these pages, or “in colour” for all of them.',
      'What is seen is what comes out: the pages turn grey on the screen too.',
    ],
    files: ['players-notes.pdf'],
    ticket: { color: 'monochrome', sides: 'two-sided', tray: 'tray-1' },
    shows: 'sheet',
  },
  {
    name: 'sizes',
    title: 'Pages of several sizes, each from the tray with its paper',
    steps: [
      'Leave “each page’s own paper size” and “whichever tray holds its paper” as they are.',
      'The lanes show which page comes from which tray.',
      'A size that no tray holds is told of, with what can be done.',
    ],
    files: ['stage-plan.pdf'],
    ticket: { tray: 'auto' },
    shows: 'lanes',
  },
];

/** The job as it is entered, over these files. @param ids of the documents, in the order of `files` */
export function guideTicket({ title, pages = 'all', ticket }: GuideJob, ids: readonly string[]): TicketInput {
  const { part, ...settings } = ticket;
  const documents = ids.map((file) => ({ file, pages, ...(part === undefined ? {} : { part }) }));
  return { version: 1, title, documents, ...settings };
}
