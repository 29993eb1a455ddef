import {
  autumnProgramme,
  flyer,
  grantReturn,
  playersNotes,
  rehearsalTimetable,
  seasonContract,
  stagePlan,
} from './index';
import { hallLetter } from './hall-letter';
import { seasonBudget } from './season-budget';
import { seasonPage } from './season-page';

/** A demo job: its document, and its ticket but for the document's id. */
interface DemoJob {
  readonly file: string;
  readonly make: () => Promise<Buffer> | Buffer;
  /** Its pages, unless all are printed. */
  readonly pages?: string;
  /** How it is laid out, where it has no pages of its own. */
  readonly form?: Readonly<Record<string, unknown>>;
  readonly ticket: Readonly<Record<string, unknown>>;
}

/** Entered in this order; the last one stands first on the Desk. */
const JOBS: readonly DemoJob[] = [
  {
    file: 'news-for-players.html',
    make: seasonPage,
    form: { style: 'reading' },
    ticket: { title: 'News for players', copies: 24, sides: 'two-sided', tray: 'tray-1' },
  },
  {
    file: 'letter-to-the-hall.docx',
    make: hallLetter,
    ticket: {
      title: 'Letter to the Town Hall',
      copies: 2,
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [{ name: 'Letterhead', pages: '1', tray: 'tray-2' }],
    },
  },
  {
    file: 'season-budget.xlsx',
    make: seasonBudget,
    form: { sheets: ['Summary', 'Expenses', 'Concerts'], fit: 'width', orientation: 'landscape' },
    ticket: {
      title: 'Season budget',
      copies: 5,
      tray: 'tray-1',
      routes: [{ name: 'Letterhead', pages: '1:1', tray: 'tray-2' }],
    },
  },
  {
    file: 'grant-return.pdf',
    make: grantReturn,
    ticket: { title: 'Grant return', paper: { size: 'iso_a4_210x297mm' }, scale: { mode: 'fit' } },
  },
  {
    file: 'flyer.pdf',
    make: flyer,
    pages: '(1, 2) x2',
    ticket: {
      title: 'Flyer, open rehearsal',
      copies: 25,
      paper: { size: 'iso_a4_210x297mm' },
      layout: { kind: 'grid', pagesPerSide: 4, marks: 'cut' },
    },
  },
  {
    file: 'players-notes.pdf',
    make: playersNotes,
    ticket: { title: 'Players’ notes', copies: 12, sides: 'two-sided', color: 'monochrome' },
  },
  {
    file: 'rehearsal-timetable.pdf',
    make: rehearsalTimetable,
    ticket: { title: 'Rehearsal timetable', copies: 6, sides: 'two-sided' },
  },
  {
    file: 'stage-plan.pdf',
    make: stagePlan,
    ticket: { title: 'Stage plan', copies: 3, sides: 'one-sided', tray: 'auto' },
  },
  {
    file: 'autumn-programme.pdf',
    make: autumnProgramme,
    ticket: { title: 'Autumn programme', copies: 20, sides: 'two-sided', tray: 'tray-1' },
  },
  {
    file: 'season-contract.pdf',
    make: seasonContract,
    ticket: {
      title: 'Season contract',
      copies: 2,
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [
        { name: 'Letterhead', pages: '1', tray: 'tray-2', sides: 'one-sided' },
        { name: 'Signatures', pages: '6, 9', tray: 'tray-3', sides: 'one-sided' },
      ],
    },
  },
];

/** Set-ups that the office saved. */
const SETUPS = [
  {
    name: 'Contracts to be signed',
    printerId: 'upper-office',
    ticket: {
      copies: 2,
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [
        { name: 'Letterhead', pages: '1', tray: 'tray-2', sides: 'one-sided' },
        { name: 'Signatures', pages: '6, 9', tray: 'tray-3', sides: 'one-sided' },
      ],
    },
  },
  {
    name: 'Programme booklet, card cover',
    printerId: 'upper-office',
    ticket: { copies: 20, layout: { kind: 'booklet', cover: 'tray-3' } },
  },
  {
    name: 'Players’ notes, 2 a side in grey',
    printerId: 'library',
    ticket: { copies: 12, sides: 'two-sided', color: 'monochrome', layout: { kind: 'grid', pagesPerSide: 2 } },
  },
] as const;

/** Enters the demo jobs through the API, unless there are jobs already. @param base the server's address */
async function seed(base: string): Promise<void> {
  const existing = ((await json(await fetch(`${base}/api/jobs`))) as { jobs: unknown[] }).jobs;
  if (existing.length > 0) return;
  for (const { file, make, pages = 'all', form = {}, ticket } of JOBS) {
    const uploaded = (await json(
      await fetch(`${base}/api/files?name=${file}&form=${encodeURIComponent(JSON.stringify(form))}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: new Uint8Array(await make()),
      }),
    )) as { id: string };
    await json(
      await fetch(`${base}/api/jobs`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ ticket: { version: 1, documents: [{ file: uploaded.id, pages, form }], ...ticket } }),
      }),
    );
  }
  for (const { ticket, ...setup } of SETUPS) {
    const body = JSON.stringify({ ...setup, ticket: { version: 1, documents: [{ file: '*' }], ...ticket } });
    const headers = { 'Content-Type': 'application/json' };
    await json(await fetch(`${base}/api/setups`, { method: 'POST', headers, body }));
  }
  console.log(`Entered ${JOBS.length} demo jobs and ${SETUPS.length} set-ups.`);
}

async function json(response: Response): Promise<unknown> {
  const body: unknown = await response.json();
  if (!response.ok) throw new Error(`demo: ${JSON.stringify(body)}`);
  return body;
}

const base = process.argv[2];
if (!base) {
  console.error('usage: demo http://127.0.0.1:PORT');
  process.exit(2);
}
await seed(base);
