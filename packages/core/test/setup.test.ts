import fc from 'fast-check';
import {
  ANY_FILE,
  applySetup,
  fitsAnyDocument,
  generalised,
  isSetup,
  openSelections,
  plan,
  selectPages,
  setupOf,
  withSelection,
  type DocumentFacts,
  type TicketInput,
} from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { facts, job, RUNS, ticketOf } from './any-job';
import { documentOf, OFFICE } from './jobs';

const ticket = (settings: Partial<TicketInput>) =>
  readTicket({ version: 1, documents: [{ file: 'contract.pdf' }], ...settings });

const sections = (...starts: number[]): DocumentFacts => ({
  ...documentOf(14),
  outline: starts.map((page, at) => ({ title: `Part ${at + 1}`, level: 1, page, top: 0 })),
});

test.each([
  ['all', true],
  ['1', true],
  ['last', true],
  ['1, last', true],
  ['2-', true],
  ['2-last', true],
  ['odd', true],
  ['all even', true],
  ['all but 1, last', true],
  ['all size a3', true],
  ['(all landscape) x2', true],
  ['2:', true],
  ['2:1, 3:last', true],
  ['1:1-2:last', true],
  ['"Fees"', true],
  ['6', false],
  ['1-3', false],
  ['3-', false],
  ['-2', false],
  ['2', false],
  ['2:2', false],
  ['all but 6', false],
  ['(1, 4) x2', false],
  ['iv', false],
  ['all odd (', false],
])('"%s" means the same in any document: %s', (text, fits) => {
  expect(fitsAnyDocument(text)).toBe(fits);
});

test.each([
  ['1, 6', '1, 2:1'],
  ['1, 14', '1, last'],
  ['2-14', '2-'],
  ['6-9', '2:'],
  ['1, 5', '1, 1:last'],
  ['1-14', 'all'],
  ['1, 7', null],
])('of a document in parts, %s is called %s in any', (text, said) => {
  expect(generalised(text, { facts: sections(1, 6, 10), rotate: 0, forgiving: false })).toBe(said);
});

test('a text for any document names the very pages that were named, or there is none (law)', () => {
  const withParts = fc
    .tuple(facts, fc.array(fc.integer({ min: 1, max: 24 }), { maxLength: 4 }))
    .map(([one, starts]): DocumentFacts => {
      const pages = [...new Set(starts)].sort((a, b) => a - b).filter((page) => page <= one.pages.length);
      const outline = pages.map((page, at) => ({ title: `Part ${at + 1}`, level: 1, page, top: 0 }));
      return { ...one, outline };
    });
  const chosen = withParts.chain((one) =>
    fc.tuple(fc.constant(one), fc.array(fc.integer({ min: 1, max: one.pages.length }), { minLength: 1, maxLength: 6 })),
  );
  fc.assert(
    fc.property(chosen, ([one, pages]) => {
      const context = { facts: one, rotate: 0, forgiving: false };
      const text = generalised(pages.join(','), context);
      if (text === null) return;
      expect(fitsAnyDocument(text)).toBe(true);
      expect(selectPages(text, context)).toEqual(pages);
    }),
    RUNS,
  );
});

test('a set-up is a ticket without title and files, and applied to the same file prints the same (law)', () => {
  fc.assert(
    fc.property(job, (tried) => {
      const one = { ...tried, documents: tried.documents.slice(0, 1) };
      const before = { ...ticketOf(one), title: 'Mine' };
      const setup = setupOf(before);
      expect([setup.title, isSetup(setup), readTicket(setup)]).toEqual(['', true, setup]);
      expect(applySetup(setup, ['any.pdf'], 'Mine')).toEqual(before);
    }),
    RUNS,
  );
});

test('pages that a short file has not match nothing, over one file and over several', () => {
  const setup = setupOf(ticket({ routes: [{ pages: '6', tray: 'tray-2' }] }));
  const printer = readPrinter(OFFICE);
  const short = applySetup(setup, ['short.pdf']);
  const { sheets: four, checks } = plan(short, [documentOf(4, undefined, 'short.pdf')], printer);
  expect(four.map(({ tray }) => tray)).toEqual(Array(4).fill('tray-1'));
  // It is not overlooked.
  expect(checks).toMatchObject([{ code: 'route-unused', level: 'note' }]);
  const both = applySetup(setup, ['short.pdf', 'long.pdf']);
  const sheets = plan(both, [documentOf(4), documentOf(8)], printer).sheets;
  expect(sheets.filter(({ tray }) => tray === 'tray-2').map(({ front }) => front.cells[0])).toMatchObject([
    { document: 2, page: 6 },
  ]);
});

test('of several files, how they are read is kept where it is common, and routes of each become routes for any', () => {
  const files = (first: object, second: object): TicketInput['documents'] => [
    { file: 'a', ...first },
    { file: 'b', ...second },
  ];
  const routes = [
    { document: 1, pages: '1', tray: 'tray-2' },
    { document: 2, pages: '1', tray: 'tray-2' },
  ];
  const alike = setupOf(ticket({ documents: files({ pages: '2-' }, { pages: '2-' }), routes }));
  expect(alike.documents).toMatchObject([{ file: ANY_FILE, pages: '2-' }]);
  expect(alike.routes).toEqual([{ pages: '1', tray: 'tray-2' }]);
  expect(setupOf(ticket({ documents: files({ pages: '2-' }, {}) })).documents).toMatchObject([{ pages: 'all' }]);
});

test('one file in several ways stays so, for each file that it is applied to', () => {
  const documents = [{ file: 'a' }, { file: 'a', rotate: 90 as const }];
  const setup = setupOf(ticket({ documents, routes: [{ document: 2, pages: 'all', tray: 'tray-3' }] }));
  const applied = applySetup(setup, ['x', 'y']);
  expect(applied.documents.map(({ file, rotate }) => [file, rotate])).toEqual([
    ['x', 0],
    ['x', 90],
    ['y', 0],
    ['y', 90],
  ]);
  expect(applied.routes.map(({ document }) => document)).toEqual([2, 4]);
});

test('pages that fit one document alone are asked for, and answered', () => {
  const setup = setupOf(
    ticket({
      routes: [
        { pages: '1, 6', tray: 'tray-2' },
        { pages: 'last', tray: 'tray-3' },
      ],
    }),
  );
  expect(openSelections(setup)).toEqual([{ of: 'routes', at: 0, text: '1, 6' }]);
  const answered = withSelection(setup, { of: 'routes', at: 0 }, '1, 2:1');
  expect(openSelections(answered)).toEqual([]);
  expect(answered.routes.map(({ pages }) => pages)).toEqual(['1, 2:1', 'last']);
  expect(openSelections(withSelection(setup, { of: 'documents', at: 0 }, '3-5'))).toHaveLength(2);
});

test('what came attached to a mail stays so whatever set-up is given to it, and a set-up keeps nothing of it', () => {
  const attached = (id: string, attachment: string) => ({ id, laid: { form: { attachment, fit: 'page' } as const } });
  const setup = setupOf(ticket({ documents: [{ file: 'f', form: { attachment: 'old.xlsx', fit: 'width' } }] }));
  expect(setup.documents).toMatchObject([{ file: '*', form: { fit: 'width' } }]);
  const given = applySetup(setup, ['mail', attached('mail', 'plan.pdf'), attached('mail', 'seats.csv')]);
  expect(given.documents.map(({ file, form }) => [file, form])).toEqual([
    ['mail', { fit: 'width' }],
    ['mail', { fit: 'width', attachment: 'plan.pdf' }],
    ['mail', { fit: 'width', attachment: 'seats.csv' }],
  ]);
  // Documents that differ in nothing but what they are attached as are read alike.
  expect(setupOf(given).documents).toMatchObject([{ file: '*', form: { fit: 'width' } }]);
});
