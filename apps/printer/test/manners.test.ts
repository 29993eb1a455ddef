import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MANNERS } from '../src/manners';
import { CASES } from './cases';
import { PRINTERS, tryOut } from './printing';

/**
 * The same tickets at a printer that can do everything, but has a manner of its own: one right outcome each, and nothing
 * but the planned sheets in its output.
 */

const [OFFICE] = PRINTERS;

/** Not the long one: a manner shows in few pages. */
const TICKETS = Object.keys(CASES).filter((name) => name !== '258 pages');

/** At a printer without manners. */
const AS_USUAL: Readonly<Record<string, string>> = {
  ...Object.fromEntries(TICKETS.map((name) => [name, 'plain, 1 job'])),
  ...Object.fromEntries(
    [
      'letterhead first',
      'contract',
      'A3 among A4',
      'booklet with a cover',
      'booklet, then a report',
      'one-sided among two-sided',
      'face up but for its last page',
    ].map((name) => [name, 'overrides, 1 job']),
  ),
  ...Object.fromEntries(
    ['letter and legal', 'A4 and letter', 'A4 and letter, both sides and one', 'custom size'].map((name) => [
      name,
      'stop no-tray-for-paper',
    ]),
  ),
};

type Outcomes = Readonly<Record<string, string>>;

/** What is otherwise than usual: for some tickets, for all that are printed, or for all. */
const OTHERWISE: Readonly<Record<string, Outcomes | ((usual: string) => string)>> = {
  'by-size': {
    ...Object.fromEntries(
      TICKETS.filter((name) => AS_USUAL[name]!.startsWith('plain')).map((name) => [name, 'by-size, 1 job']),
    ),
    'letterhead first': 'stop trays-by-size',
    contract: 'stop trays-by-size',
    'booklet with a cover': 'stop trays-by-size',
    'A3 among A4': 'separate, 3 jobs',
    'booklet, then a report': 'separate, 4 jobs',
    'face up but for its last page': 'separate, 4 jobs',
    'one-sided among two-sided': 'two-sided-throughout, 1 job',
  },
  'no-overrides': {
    'letterhead first': 'separate, 4 jobs',
    contract: 'separate, 12 jobs',
    'booklet with a cover': 'separate, 2 jobs',
    'A3 among A4': 'by-size, 1 job',
    'booklet, then a report': 'separate, 4 jobs',
    'face up but for its last page': 'separate, 4 jobs',
    'one-sided among two-sided': 'two-sided-throughout, 1 job',
  },
  'jpeg-alone': {
    ...Object.fromEntries(
      TICKETS.filter((name) => !AS_USUAL[name]!.startsWith('stop')).map((name) => [name, 'stop format-unknown']),
    ),
    uncollated: 'separate, 3 jobs',
    'slips between sets': 'separate, 11 jobs',
    'information sheet and slips': 'separate, 9 jobs',
    'information sheet, one-sided, last first': 'separate, 4 jobs',
  },
  'no-format': (usual) => (usual.startsWith('stop') ? usual : 'stop format-unknown'),
  busy: (usual) => (usual.startsWith('stop') ? usual : `tried again, ${usual}`),
  'hangs-up': (usual) => (usual.startsWith('stop') ? usual : `looked for, ${usual}`),
  slow: () => 'it cannot be reached: it takes too long to answer',
  'many-trays': () => 'it: the printer names 5000 papers, which none has',
  huge: () => 'it cannot be reached: its answer is longer than 1 MB, which no printer’s is',
  garbage: () => 'the answer from it is not IPP (byte N: an attribute stands before any group)',
  'wrong-length': () => 'the answer from it is not IPP (byte N: the message ends too early)',
  redirects: () => 'it answers with HTTP status 302, not IPP, and sends on to http://it/elsewhere',
  locked: () => 'it asks for a name and a password',
};

function wanted(manner: string, ticket: string): string {
  const usual = AS_USUAL[ticket]!;
  const otherwise = OTHERWISE[manner] ?? {};
  return typeof otherwise === 'function' ? otherwise(usual) : (otherwise[ticket] ?? usual);
}

test.each(Object.keys(MANNERS))(
  'a printer of the manner %s: every ticket has its outcome, and what is printed is as planned',
  async (manner) => {
    const found: Record<string, string> = {};
    for (const ticket of TICKETS) found[ticket] = await tryOut(ticket, OFFICE!, MANNERS[manner]);
    expect(found).toEqual(Object.fromEntries(TICKETS.map((ticket) => [ticket, wanted(manner, ticket)])));
  },
  120_000,
);

test('each manner is a line of the documentation, in the same words', () => {
  const page = readFileSync(join(__dirname, '../../../docs/printers.md'), 'utf8');
  const rows = [...page.matchAll(/^\| `([a-z-]+)` *\| ([^|]+?) *\|/gm)].map(([, name, is]) => [name, is]);
  expect(rows).toEqual(Object.entries(MANNERS).map(([name, { is }]) => [name, is]));
});
