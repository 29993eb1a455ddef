import type { SetupRecord } from '@foglio/api';
import { applySetup, plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { changesBetween } from './changes';
import { houseFor } from './house';
import { SAMPLE, sampleDocuments } from './sample-document';

const printer = readPrinter({
  name: 'P',
  trays: ['1', '2'].map((number) => ({ id: `tray-${number}`, name: `Tray ${number}`, size: 'iso_a4_210x297mm' })),
});
const facts = { name: 'a.pdf', pages: Array.from({ length: 4 }, () => ({ width: 595.276, height: 841.89 })) };
const read = (settings: object) => readTicket({ version: 1, documents: [{ file: 'a' }], ...settings });
const situation = (ticket: ReturnType<typeof read>) => ({
  ticket,
  documents: ticket.documents.map(() => facts),
  printer,
  at: 0,
  house: read({}),
});

test('what changes is told in the words of the sentence, and nothing else', () => {
  const now = situation(read({ copies: 12 }));
  const setup = read({
    sides: 'two-sided',
    routes: [{ pages: '1', tray: 'tray-2' }],
    documents: [{ file: '*', pages: '2-' }],
  });
  const then = situation(applySetup(setup, ['a']));
  expect(changesBetween(now, then).map(({ what, now: before, then: after }) => [what, before, after])).toEqual([
    ['Which pages', 'all 4 pages', 'pages 2 to 4'],
    ['How many copies', '12 copies', 'one copy'],
    ['One side or both', 'one side', 'both sides'],
    ['How the sheets turn over', '—', 'like a book'],
    ['Pages with paper or settings of their own', '—', 'page 1 comes from Tray 2'],
  ]);
  expect(changesBetween(now, now)).toEqual([]);
});

test('of a booklet nothing is said that means nothing there', () => {
  const then = situation(read({ layout: { kind: 'booklet' } }));
  expect(changesBetween(situation(read({ sides: 'two-sided' })), then)).toEqual([
    { what: 'How many pages on a side', now: '1 page a side', then: 'folded as a booklet' },
  ]);
});

test('new jobs start from the printer’s own set-up, otherwise from that of the house', () => {
  const setup = (id: string, starts: SetupRecord['starts'], printerId: string | null = null): SetupRecord => ({
    id,
    name: id,
    revision: 1,
    queue: null,
    ticket: read({}),
    printerId,
    starts,
    updatedAt: '',
  });
  const all = [setup('house', 'house'), setup('own', 'printer', 'library'), setup('other', null, 'library')];
  expect(['library', 'box-office', undefined].map((id) => houseFor(all, id)?.id)).toEqual(['own', 'house', 'house']);
  expect(houseFor([], 'library')).toBeNull();
});

test('set-ups are drawn over a sample that has sections, as often as they print a file', () => {
  const ticket = readTicket({ version: 1, documents: [{ file: '*', pages: '2:' }, { file: '*' }] });
  expect(sampleDocuments(ticket)).toEqual([SAMPLE, SAMPLE]);
  expect(plan(ticket, sampleDocuments(ticket), printer).tally.sheets).toBe(4 + 12);
});
