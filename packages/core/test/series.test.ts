import {
  applySetup,
  planRow,
  REPAIRED,
  rowStanding,
  sayDifference,
  sealOfAll,
  seriesChecks,
  seriesTally,
  setupOf,
  whyUnfit,
  type DocumentFacts,
  type RowOutcome,
} from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { A3, documentOf, OFFICE } from './jobs';

const printer = readPrinter(OFFICE);
const setup = setupOf(
  readTicket({
    version: 1,
    documents: [{ file: 'any' }],
    sides: 'two-sided',
    routes: [{ pages: '1, 6', tray: 'tray-3', sides: 'one-sided' }],
  }),
);
const sealed = (facts: DocumentFacts) => [{ ...facts, sha256: facts.name }];
const rowOf = (facts: DocumentFacts, at = printer): RowOutcome =>
  planRow(applySetup(setup, [facts.name]), sealed(facts), at, 'ipp://office');
const names = (count: number): string[] => Array.from({ length: count }, (_, at) => `${at + 1}.pdf`);

test('each file is planned by itself, and one that does not fit says why', () => {
  const fits = rowOf(documentOf(8));
  expect([rowStanding(fits), fits.tally?.sheets, fits.tally?.byTray]).toEqual([
    'ready',
    5,
    { 'tray-3': 2, 'tray-1': 3 },
  ]);
  // Pages that a short one has not match nothing; its first page is on letterhead all the same.
  const short = rowOf(documentOf(4, undefined, 'short.pdf'));
  expect([rowStanding(short), short.tally?.byTray]).toEqual(['ready', { 'tray-3': 1, 'tray-1': 2 }]);
  const wide = rowOf(documentOf(6, A3));
  expect(rowStanding(wide)).toBe('unfit');
  expect(whyUnfit(wide)).toContain('Tray 3 holds A4');
});

test('totals are those of the files that fit, tray by tray, and tell at which file paper runs out', () => {
  const unfit: RowOutcome = { trouble: 'It cannot be planned.', tally: null, checks: [], seal: null };
  const rows = [...Array.from({ length: 25 }, () => rowOf(documentOf(8))), unfit];
  const { files, sheets, trays } = seriesTally(rows, printer);
  expect([files, sheets]).toEqual([25, 125]);
  expect(trays.map(({ tray, needed, loaded, shortAt }) => [tray, needed, loaded, shortAt])).toEqual([
    ['tray-1', 75, 500, null],
    // 40 sheets are two for each of 20 files; the 21st is short.
    ['tray-3', 50, 40, 20],
  ]);
  expect(seriesChecks(rows, names(26), printer).map(({ message }) => message)).toEqual([
    'Tray 3 holds 40 of the 50 sheets needed; it runs out at 21.pdf.',
  ]);
});

test('a caution that many files have is told once, with their number; the amount is that of all', () => {
  const tiny = documentOf(8);
  const pages = tiny.pages.map((page) => ({ ...page, smallestText: 4 }));
  const rows = Array.from({ length: 50 }, () => rowOf({ ...tiny, pages }));
  const found = seriesChecks(rows, names(50), printer).map(({ code, files }) => [code, files]);
  expect(found).toEqual([
    ['tray-short', 50],
    ['large-run', 50],
    ['text-too-small', 50],
  ]);
});

test('the seal of all is another for another order, file, paper or copy, and says what differs', () => {
  const files = ['a.pdf', 'b.pdf'].map((name) => documentOf(8, undefined, name));
  const sealAt = (at = printer, all = files) => sealOfAll(all.flatMap((one) => rowOf(one, at).seal ?? []));
  const seen = sealAt();
  expect(sayDifference(seen, sealAt())).toBeNull();
  // What is loaded is not what reaches paper.
  const trays = (change: object) => OFFICE.trays.map((tray) => ({ ...tray, ...change }));
  expect(sayDifference(seen, sealAt(readPrinter({ ...OFFICE, trays: trays({ loaded: 7 }) })))).toBeNull();
  expect(sayDifference(seen, sealAt(readPrinter({ ...OFFICE, trays: trays({ type: 'labels' }) })))).toBe('the paper');
  expect(sayDifference(seen, sealAt(printer, files.toReversed()))).toBe('the documents');
  expect(sayDifference(seen, sealAt(printer, files.slice(1)))).not.toBeNull();
});

test('what would have to be turned by hand for every file is a stop', () => {
  const byHand = readPrinter({ ...OFFICE, duplex: false });
  const facts = documentOf(4);
  const rows = [
    planRow(
      applySetup(setupOf(readTicket({ version: 1, documents: [{ file: 'a' }], sides: 'two-sided' })), ['a']),
      sealed(facts),
      byHand,
      'ipp://office',
    ),
  ];
  expect(seriesChecks(rows, ['a.pdf'], byHand)).toMatchObject([
    { code: 'two-passes', level: 'stop', message: expect.stringContaining('a.pdf is two-sided') as string },
  ]);
});

test('a file that was damaged is told in its row and confirmed, since nobody sees the pages of many', () => {
  const sound = rowOf(documentOf(2));
  const damaged = rowOf({ ...documentOf(2), remarks: ['Its fonts are not in it.', REPAIRED] });
  expect([rowStanding(sound), rowStanding(damaged), damaged.checks[0]?.message]).toEqual([
    'ready',
    'caution',
    REPAIRED,
  ]);
  // One damaged file more is another thing to look at, and nothing that is printed otherwise.
  expect(damaged.seal).toEqual(sound.seal);
  expect(seriesChecks([sound, damaged, damaged], ['1.pdf', '2.pdf', '3.pdf'], printer)).toEqual([
    { code: 'file-repaired', level: 'caution', message: `2.pdf: ${REPAIRED}`, files: 2 },
  ]);
});
