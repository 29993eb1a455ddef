import type { DocumentFacts, Printer, Ticket } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { sentence } from './sentence';

const PRINTER: Printer = readPrinter({
  name: 'Upper office',
  trays: ['1', '2', '3'].map((number) => ({ id: `tray-${number}`, name: `Tray ${number}`, size: 'iso_a4_210x297mm' })),
});

const documentOf = (name: string, count: number): DocumentFacts => ({
  name,
  pages: Array.from({ length: count }, () => ({ width: 595, height: 842 })),
});

const CONTRACT = [documentOf('contract.pdf', 14)];

function read(settings: object, documents = CONTRACT, pages = 'all'): string {
  const entries = documents.map(({ name }) => ({ file: name, pages }));
  const ticket: Ticket = readTicket({ version: 1, title: 'Season contract', documents: entries, ...settings });
  return sentence(ticket, documents, PRINTER)
    .map(({ text }) => text)
    .join('');
}

test.each<[string, string]>([
  [read({}), 'Print all 14 pages of Season contract, one copy, on one side, from whichever tray holds its paper.'],
  [
    read({}, [documentOf('note.pdf', 1)]),
    'Print the only page of Season contract, one copy, on one side, from whichever tray holds its paper.',
  ],
  [
    read({}, CONTRACT, '3'),
    'Print page 3 of Season contract, one copy, on one side, from whichever tray holds its paper.',
  ],
  [
    read({ tray: 'tray-1' }, CONTRACT, '1-4, 9'),
    'Print pages 1 to 4 and 9 of Season contract, one copy, on one side, from Tray 1.',
  ],
  [
    read({}, CONTRACT, '1-99'),
    'Print pages “1-99” of Season contract, one copy, on one side, from whichever tray holds its paper.',
  ],
  [
    read({ copies: 24, sides: 'two-sided', tray: 'tray-1' }),
    'Print all 14 pages of Season contract, 24 copies as complete sets, on both sides turning like a book, from Tray 1.',
  ],
  [
    read({ copies: 2, collate: false, sides: 'two-sided', bind: 'top', tray: 'tray-9' }),
    'Print all 14 pages of Season contract, 2 copies as the same sheet again before the next, on both sides turning like a pad, from “tray-9”.',
  ],
  [
    read({
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [
        { pages: '1', tray: 'tray-2', sides: 'one-sided' },
        { pages: '6, 9', tray: 'tray-3' },
        { pages: '14', sides: 'one-sided' },
      ],
    }),
    'Print all 14 pages of Season contract, one copy, on both sides turning like a book. Page 1 comes from Tray 2, on one side; pages 6 and 9 come from Tray 3; page 14 is printed on one side; all else comes from Tray 1.',
  ],
  [
    read({ routes: ['1', '2', '3', '4'].map((pages) => ({ pages, tray: 'tray-2' })) }),
    'Print all 14 pages of Season contract, one copy, on one side. 4 routes have paper of their own; all else comes from whichever tray holds its paper.',
  ],
  [
    read({ title: '' }, [documentOf('a.pdf', 2), documentOf('b.pdf', 1), documentOf('c.PDF', 3)]),
    'Print both pages of a, the only page of b and all 3 pages of c, one copy, on one side, from whichever tray holds its paper.',
  ],
  [
    read({
      color: 'monochrome',
      scale: { mode: 'percent', percent: 70 },
      margin: 8,
      quality: 'draft',
      paper: { size: 'iso_a4_210x297mm' },
    }),
    'Print all 14 pages of Season contract, one copy, on one side, on A4, at 70 %, keeping 8 mm free, in grey, as a draft, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'grid', pagesPerSide: 4, turn: 'best', frame: true }, delivery: 'last-to-first' }),
    'Print all 14 pages of Season contract, one copy, on one side, 4 pages on a side, turned where that is larger, framed, last sheet first, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'grid', columns: 2, rows: 5, repeat: 'fill-side', marks: 'cut' } }, CONTRACT, '1'),
    'Print page 1 of Season contract, one copy, on one side, each page 10 times on a side in 2 columns and 5 rows, with cut marks, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'booklet' }, copies: 30, slips: { between: 'sets' } }),
    'Print all 14 pages of Season contract, 30 copies as complete sets, on both sides, folded as a booklet, with a blank slip between sets, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'booklet', sheetsPerSignature: 4 }, newSheet: { sections: true } }),
    'Print all 14 pages of Season contract, one copy, on both sides, folded as a booklet in 4 sheets at a time, each section on a new sheet, from whichever tray holds its paper.',
  ],
])('%s', (said, expected) => {
  expect(said).toBe(expected);
});

test('phrases at the house set-up are quiet, others strong', () => {
  const phrases = (settings: object): [string, boolean][] =>
    sentence(readTicket({ version: 1, documents: [{ file: 'contract.pdf' }], ...settings }), CONTRACT, PRINTER)
      .filter(({ control }) => control !== null)
      .map(({ text, strong }) => [text, strong]);
  expect(phrases({}).filter(([, strong]) => strong)).toEqual([]);
  expect(phrases({ copies: 3, sides: 'two-sided' }).filter(([, strong]) => strong)).toEqual([
    ['3 copies', true],
    ['both sides', true],
  ]);
});
