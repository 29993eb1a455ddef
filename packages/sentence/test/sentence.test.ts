import {
  bookletDefaults,
  gridDefaults,
  tilesDefaults,
  type DocumentFacts,
  type Printer,
  type Ticket,
} from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { isUsual, plainOf, usual } from '../src/aspect';
import type { Situation } from '../src/situation';
import { aspectOf, OFFERED } from '../src/aspects';
import { trayLabels } from '../src/paper';
import { sentence } from '../src/sentence';

const PRINTER: Printer = readPrinter({
  name: 'Upper office',
  outputBins: ['face-up', 'mailbox-3'],
  finishings: ['staple-top-left', 'staple-dual-left', 'punch-dual-left', 'fold-half', 'jog-offset'],
  trays: ['1', '2', '3'].map((number) => ({
    id: `tray-${number}`,
    name: `Tray ${number}`,
    size: 'iso_a4_210x297mm',
    type: 'stationery',
  })),
});

const documentOf = (name: string, count: number): DocumentFacts => ({
  name,
  pages: Array.from({ length: count }, () => ({ width: 595, height: 842 })),
});

const CONTRACT = [documentOf('contract.pdf', 14)];

const HOUSE = readTicket({ version: 1, documents: [{ file: '*' }] });

function read(settings: object, documents = CONTRACT, pages = 'all'): string {
  const entries = documents.map(({ name }) => ({ file: name, pages }));
  const ticket: Ticket = readTicket({ version: 1, title: 'Season contract', documents: entries, ...settings });
  return sentence({ ticket, documents, printer: PRINTER, at: 0, house: HOUSE })
    .map(({ text }) => text)
    .join('');
}

test.each<[string, string]>([
  [
    read({}),
    'Print all 14 pages of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({}, [documentOf('note.pdf', 1)]),
    'Print the only page of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({}, CONTRACT, '3'),
    'Print page 3 of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ tray: 'tray-1' }, CONTRACT, '1-4, 9'),
    'Print pages 1 to 4 and 9 of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from Tray 1.',
  ],
  [
    read({}, CONTRACT, '1-99'),
    'Print pages “1-99” of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ copies: 24, sides: 'two-sided', tray: 'tray-1' }),
    'Print all 14 pages of Season contract, 24 copies as complete sets, on both sides turning like a book, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from Tray 1.',
  ],
  [
    read({ copies: 2, collate: false, sides: 'two-sided', bind: 'top', tray: 'tray-9' }),
    'Print all 14 pages of Season contract, 2 copies as the same sheet again before the next, on both sides turning like a pad, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from a tray that is not in Upper office.',
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
    'Print all 14 pages of Season contract, one copy, on both sides turning like a book, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour. Page 1 comes from Tray 2, on one side; pages 6 and 9 come from Tray 3; page 14 is printed on one side; all else comes from Tray 1.',
  ],
  [
    read({ routes: ['1', '2', '3', '4'].map((pages) => ({ pages, tray: 'tray-2' })) }),
    'Print all 14 pages of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour. 4 routes have paper or settings of their own; all else comes from whichever tray holds its paper.',
  ],
  [
    read({ title: '' }, [documentOf('a.pdf', 2), documentOf('b.pdf', 1), documentOf('c.PDF', 3)]),
    'Print both pages of a, the only page of b and all 3 pages of c, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({
      color: 'monochrome',
      scale: { mode: 'percent', percent: 70 },
      margin: 8,
      quality: 'draft',
      paper: { size: 'iso_a4_210x297mm' },
    }),
    'Print all 14 pages of Season contract, one copy, on one side, 1 page a side, at 70 %, on A4, keeping 8 mm free, in grey, as a draft, from whichever tray holds its paper.',
  ],
  [
    read({ inTurn: true, newSheet: { documents: false }, slips: { between: 'documents' } }, [
      documentOf('a.pdf', 2),
      documentOf('b.pdf', 1),
    ]),
    'Print both pages of a and the only page of b, a page of each in turn, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ pieces: { count: 120 }, layout: { kind: 'grid', pagesPerSide: 4, stack: 'cut' } }, CONTRACT, '1'),
    'Print page 1 of Season contract, 120 pieces, one copy, on one side, 4 pages a side, in piles to cut and stack, made smaller only where needed (50 %), on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ pieces: { count: 87, fill: true }, layout: { kind: 'grid', pagesPerSide: 4, backs: 'behind' } }),
    'Print all 14 pages of Season contract, 87 pieces and as many more as fill the last sheet, one copy, on both sides turning like a book, 4 pages a side, each back behind its own front, made smaller only where needed (35 to 50 %), on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ pieces: { count: 4 }, layout: { kind: 'booklet' } }),
    'Print all 14 pages of Season contract, one copy, folded as a booklet, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({
      documents: [{ file: 'contract.pdf', part: 'content' }],
      routes: [
        { pages: '1', part: { left: 20, top: 30, width: 120, height: 80 } },
        { pages: '2', part: 'whole' },
      ],
      tray: 'tray-1',
    }),
    'Print all 14 pages of Season contract with white margins trimmed, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour. Page 1 is printed in part (120 × 80 mm); page 2 is printed whole; all else comes from Tray 1.',
  ],
  [
    read({ layout: { kind: 'tiles', columns: 3, rows: 2, marks: 'join' }, sides: 'two-sided' }, CONTRACT, '1'),
    'Print page 1 of Season contract, one copy, each page over several sheets, 3 across and 2 down, overlapping by 10 mm, with marks to join by, as large as these let it be (197 %), on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'tiles', overlap: 0 }, scale: { mode: 'percent', percent: 200 } }, CONTRACT, '1'),
    'Print page 1 of Season contract, one copy, each page over several sheets, as many as its size needs, edge to edge, at 200 %, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ sides: 'two-sided', faces: 'backs' }),
    'Print all 14 pages of Season contract, one copy, on both sides turning like a book, the backs alone, onto printed fronts, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ sides: 'two-sided', bindingMargin: 12, margin: 5 }),
    'Print all 14 pages of Season contract, one copy, on both sides turning like a book, 1 page a side, made smaller only where needed (90 %), on each page’s own paper size, keeping 5 mm free, in colour, leaving 12 mm for the binding, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'grid', pagesPerSide: 4, turn: 'best', frame: true }, delivery: 'last-to-first' }),
    'Print all 14 pages of Season contract, one copy, on one side, 4 pages a side, turned where that is larger, framed, made smaller only where needed (50 %), on each page’s own paper size, in colour, last sheet first, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'grid', columns: 2, rows: 5, repeat: 'fill-side', marks: 'cut' } }, CONTRACT, '1'),
    'Print page 1 of Season contract, one copy, on one side, 10 pages a side in 2 columns and 5 rows, each side filled with one page, with cut marks, made smaller only where needed (20 %), on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'booklet' }, copies: 30, slips: { between: 'sets' } }),
    'Print all 14 pages of Season contract, 30 copies as complete sets, folded as a booklet, made smaller only where needed (71 %), on each page’s own paper size, in colour, with a blank slip between sets, from whichever tray holds its paper.',
  ],
  [
    read({ layout: { kind: 'booklet', sheetsPerSignature: 4 }, newSheet: { sections: true } }),
    'Print all 14 pages of Season contract, one copy, folded as a booklet in signatures of 4 sheets, made smaller only where needed (71 %), on each page’s own paper size, in colour, each section on a new sheet, from whichever tray holds its paper.',
  ],
  [
    read({ copies: 2, slips: { between: 'documents', tray: 'tray-3' }, newSheet: { documents: false } }, [
      documentOf('a.pdf', 2),
      documentOf('b.pdf', 1),
    ]),
    'Print both pages of a and the only page of b, 2 copies as complete sets, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, one document right after the other, with a blank slip between documents from Tray 3, from whichever tray holds its paper.',
  ],
  [
    read({}, [documentOf('a.pdf', 2), documentOf('b.pdf', 1), documentOf('c.pdf', 3), documentOf('d.pdf', 3)]),
    'Print all 9 pages of 4 documents, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({}, [documentOf('a.pdf', 2), documentOf('b.pdf', 1), documentOf('c.pdf', 3), documentOf('d.pdf', 3)], '1'),
    'Print 4 pages of 4 documents, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, from whichever tray holds its paper.',
  ],
  [
    read({
      layout: { kind: 'booklet', cover: 'tray-3', creep: 0.2, marks: 'fold' },
      bind: 'right',
      paper: { size: 'iso_a3_297x420mm', type: 'cardstock', orientation: 'landscape' },
    }),
    'Print all 14 pages of Season contract, one copy, folded as a booklet, read from the right, its cover from Tray 3, moved 0.2 mm a sheet towards the fold, with fold marks, made smaller only where needed, on A3, on card paper, every side landscape, in colour, from whichever tray holds its paper.',
  ],
  [
    read({
      tray: 'tray-1',
      layout: { kind: 'grid', pagesPerSide: 4, flow: 'tobottom-toright', frame: true },
      routes: [
        { pages: '5', color: 'monochrome' },
        { pages: '7, 8', layout: { kind: 'grid', pagesPerSide: 1, frame: false }, ownSheet: true, rotate: 90 },
      ],
    }),
    'Print all 14 pages of Season contract, one copy, on one side, 4 pages a side, running down and then across, framed, made smaller only where needed (50 %), on each page’s own paper size, in colour. Page 5 is printed in grey; pages 7 and 8 are printed turned 90°, 1 page a side, not framed, each on a sheet of its own; all else comes from Tray 1.',
  ],
  [
    read(
      {
        tray: 'tray-1',
        routes: [
          { pages: '1', tray: 'tray-2' },
          { pages: 'last', sides: 'two-sided' },
          { document: 2, pages: '2', rotate: 180 },
        ],
      },
      [documentOf('a.pdf', 2), documentOf('b.pdf', 3)],
    ),
    'Print both pages of a and all 3 pages of b, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour. Page 1 of each document comes from Tray 2; pages “last” of each document are printed on both sides; page 2 of document 2 is printed turned 180°; all else comes from Tray 1.',
  ],
  [
    read({
      outputBin: 'mailbox-3',
      tray: 'tray-1',
      routes: [
        { pages: '2', outputBin: 'face-up' },
        { pages: '3', outputBin: 'auto' },
      ],
    }),
    'Print all 14 pages of Season contract, one copy, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, into mailbox 3. Page 2 is printed into the face-up output; page 3 is printed not into mailbox 3; all else comes from Tray 1.',
  ],
  [
    read({ finishings: ['staple-top-left', 'punch-dual-left'], finishEach: 'document', copies: 3, tray: 'tray-1' }, [
      documentOf('a.pdf', 2),
      documentOf('b.pdf', 3),
    ]),
    'Print both pages of a and all 3 pages of b, 3 copies as complete sets, on one side, 1 page a side, made smaller only where needed, on each page’s own paper size, in colour, with a staple at the top left corner, with two holes at the left edge, each document by itself, from Tray 1.',
  ],
])('%s', (said, expected) => {
  expect(said).toBe(expected);
});

const situationOf = (settings: object, house: object = {}): Situation => ({
  ticket: readTicket({ version: 1, documents: [{ file: 'contract.pdf' }], ...settings }),
  documents: CONTRACT,
  printer: PRINTER,
  at: 0,
  house: readTicket({ version: 1, documents: [{ file: '*' }], ...house }),
});

test.each([
  [{}, { color: 'monochrome', copies: 2 }, ['one copy', 'colour']],
  [{ color: 'monochrome', copies: 2 }, { color: 'monochrome', copies: 2 }, []],
  [{}, { quality: 'draft' }, ['not as a draft']],
  [
    { layout: { kind: 'grid', pagesPerSide: 2, gutter: 4 } },
    { layout: { kind: 'grid', pagesPerSide: 2 } },
    ['4 mm apart'],
  ],
  [{ layout: { kind: 'grid' } }, { layout: { kind: 'booklet', creep: 1 } }, ['1 page a side']],
  [{ sides: 'two-sided' }, { sides: 'two-sided', bind: 'top' }, ['like a book']],
  [{}, { documents: [{ file: '*', pages: '2-' }] }, ['all 14 pages']],
  [{}, { routes: [{ pages: '1', tray: 'tray-2' }] }, ['with no paper or settings of its own for any page']],
  [
    {
      routes: [
        { document: 1, pages: '1', tray: 'tray-2' },
        { pages: 'last', tray: 'tray-2' },
      ],
    },
    { routes: [{ pages: '1', tray: 'tray-2' }] },
    ['the last page'],
  ],
])('%j stands out before %j as %j', (settings, house, strong) => {
  const said = sentence(situationOf(settings, house)).filter((phrase) => phrase.strong);
  const short = said.map(({ text }) => text.replace(/^[Pp]age 14 comes.*/, 'the last page'));
  expect(short).toEqual(strong);
});

test('back to the usual is back to the house set-up', () => {
  const situation = situationOf({ copies: 9 }, { copies: 2 });
  expect(usual(aspectOf('copies'), situation)).toEqual({ copies: 2 });
  const drafted = situationOf({}, { quality: 'draft' });
  expect(usual(aspectOf('quality'), drafted)).toEqual({ quality: 'draft' });
});

test.each([
  [{}, 'Print all pages of a document, one copy, on one side'],
  [{ documents: [{ file: '*', pages: '2-' }] }, 'Print all pages after the first of a document'],
  [
    { routes: [{ pages: '1, 2:1', tray: 'tray-2' }] },
    '. The first page and the first page of section 2 come from Tray 2;',
  ],
  [{ routes: [{ pages: 'last', tray: 'tray-2' }] }, '. The last page comes from Tray 2;'],
  [{ routes: [{ pages: '1-3 odd', tray: 'tray-2' }] }, '. Pages “1-3 odd” come from Tray 2;'],
  [{ routes: [{ pages: '1, 6', tray: 'tray-2' }] }, '. The first page and page 6 come from Tray 2;'],
])('%j is said of any file', (settings, expected) => {
  const said = sentence({ ...situationOf(settings), documents: [] }).map(({ text }) => text);
  expect(said.join('')).toContain(expected);
});

test('lines at head and foot are said with what is filled in marked', () => {
  const lines = [
    { at: 'top-right', text: '{file}' },
    { at: 'bottom-center', text: 'Page {page} of {pages}' },
  ];
  expect(read({ lines })).toContain(
    ', with “‹file›” at the head at the right, with “Page ‹page› of ‹pages›” at the foot, from whichever',
  );
});

test('phrases at the house set-up are quiet, others strong', () => {
  const phrases = (settings: object): [string, boolean][] =>
    sentence(situationOf(settings))
      .filter(({ control }) => control !== null)
      .map(({ text, strong }) => [text, strong]);
  expect(phrases({}).filter(([, strong]) => strong)).toEqual([]);
  expect(phrases({ copies: 3, sides: 'two-sided' }).filter(([, strong]) => strong)).toEqual([
    ['3 copies', true],
    ['both sides', true],
  ]);
});

test('a sentence too long for three lines tells its routes by their number', () => {
  const routes = ['1-3, 5, 7, 9, 11', '2, 4, 6, 8, 10'].map((pages) => ({ pages, tray: 'tray-2', sides: 'one-sided' }));
  const settings = {
    copies: 120,
    sides: 'two-sided',
    margin: 12,
    color: 'monochrome',
    newSheet: { sections: true },
    routes,
  };
  expect(read(settings)).toContain('2 routes have paper or settings of their own; all else comes from');
  expect(read({ routes })).toContain('come from Tray 2, on one side');
});

test('long names and several documents leave room for the rest', () => {
  const name = (letter: string) => `${letter.repeat(70)} final version.pdf`;
  expect(read({ title: '' }, [documentOf(name('a'), 3)])).toContain(`of ${'a'.repeat(32)}…a final version, one copy`);
  const routes = ['1', '2', '3'].map((pages) => ({ pages, tray: 'tray-2', sides: 'one-sided' }));
  const settings = { copies: 120, sides: 'two-sided', margin: 12, color: 'monochrome', quality: 'draft', routes };
  const said = read(
    settings,
    ['a', 'b', 'c'].map((letter) => documentOf(name(letter), 5)),
  );
  expect(said).toContain('Print all 15 pages of 3 documents, 120 copies');
  expect(said.length).toBeLessThanOrEqual(350);
});

test('each phrase can be changed, and what "and also" offers is left out again by its own usual value', () => {
  const ticket = readTicket({ version: 1, documents: [{ file: 'contract.pdf' }] });
  const outlined = { ...documentOf('contract.pdf', 14), outline: [{ title: 'Fees', level: 1, page: 2, top: 0 }] };
  const tickets = [
    ticket,
    { ...ticket, copies: 24 },
    { ...ticket, layout: { ...gridDefaults, pagesPerSide: 4 } },
    { ...ticket, layout: bookletDefaults },
    { ...ticket, layout: tilesDefaults },
    { ...ticket, slips: { between: 'sets', tray: null } },
    { ...ticket, finishings: ['staple-top-left'] },
    { ...ticket, informationSheet: { print: true, by: '', tray: null } },
    { ...ticket, lines: ['top', 'bottom'].map((edge) => ({ at: `${edge}-center`, text: '{page}', size: 8 })) },
  ] as Ticket[];
  const reached = new Set<string>();
  for (const start of tickets) {
    const situation = { ticket: start, documents: [outlined], printer: PRINTER, at: 0, house: HOUSE };
    for (const aspect of OFFERED.filter(({ fits, say }) => (fits?.(situation) ?? true) && say(situation) === null)) {
      const patches = [
        ...(aspect.choices?.(situation) ?? []).map(({ patch }) => patch),
        ...(aspect.numbers?.(situation) ?? []).map((field) => field.patch(field.value + field.step)),
      ];
      const said = patches.filter((patch) => {
        const changed = { ...situation, ticket: { ...start, ...patch } };
        if (aspect.say(changed) === null) return false;
        const back = { ...changed.ticket, ...plainOf(aspect, changed) };
        expect(aspect.say({ ...changed, ticket: back })).toBeNull();
        expect(isUsual(aspect, changed)).toBe(false);
        return true;
      });
      expect([aspect.name, said.length]).not.toEqual([aspect.name, 0]);
      reached.add(aspect.name);
    }
  }
  // Labels and several documents are not in these tickets; paper types depend on what is loaded.
  const elsewhere = ['numbering', 'new-documents', 'in-turn'];
  expect([...reached].sort()).toEqual(
    OFFERED.map(({ name }) => name)
      .filter((name) => !elsewhere.includes(name))
      .sort(),
  );
});

test('trays are named with their paper, since nobody knows by a number what lies there', () => {
  const printer = readPrinter({
    name: 'Upper office',
    trays: [
      { id: 'tray-1', name: 'Tray 1', size: 'iso_a4_210x297mm', type: 'stationery', loaded: 500 },
      { id: 'tray-2', name: 'Tray 2', size: 'iso_a4_210x297mm', type: 'stationery-letterhead', loaded: 220 },
      { id: 'side', size: 'na_letter_8.5x11in' },
    ],
  });
  expect(trayLabels({ printer })).toEqual([
    ['tray-1', 'Tray 1, A4 plain, 500 sheets'],
    ['tray-2', 'Tray 2, A4 letterhead, 220 sheets'],
    ['side', 'side, US Letter'],
  ]);
});
