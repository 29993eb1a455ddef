import { asSent, everySheet, printingOrder, profileForTicket, readSizeName, type TicketInput } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { A3, documentOf, documentWith, OFFICE, outline, planOf } from './jobs';

const sectioned = documentWith(
  Array.from({ length: 6 }, () => ({})),
  [
    { title: 'One', level: 1, page: 1, top: 0 },
    { title: 'A part of it', level: 2, page: 2, top: 0 },
    { title: 'Two', level: 1, page: 4, top: 0.5 },
  ],
);

describe('where a new sheet begins (model, Planning 4)', () => {
  test('at a section’s first page, where wanted', () => {
    const settings = { tray: 'tray-1', sides: 'two-sided' as const };
    expect(outline(planOf(settings, [sectioned]))).toEqual(['tray-1: 1 | 2', 'tray-1: 3 | 4', 'tray-1: 5 | 6']);
    const apart = planOf({ ...settings, newSheet: { sections: true } }, [sectioned]);
    expect(outline(apart)).toEqual(['tray-1: 1 | 2', 'tray-1: 3 | -', 'tray-1: 4 | 5', 'tray-1: 6 | -']);
    // A section's first page printed twice begins twice.
    const twice = planOf({ ...settings, pages: '4, 4', newSheet: { sections: true } }, [sectioned]);
    expect(outline(twice)).toEqual(['tray-1: 4 | -', 'tray-1: 4 | -']);
  });

  test('at a page with a sheet of its own, and at the page after it', () => {
    const routes = [{ pages: '2', ownSheet: true }];
    expect(outline(planOf({ tray: 'tray-1', sides: 'two-sided', routes }, [documentOf(4)]))).toEqual([
      'tray-1: 1 | -',
      'tray-1: 2 | -',
      'tray-1: 3 | 4',
    ]);
  });

  test('where the type or the orientation of the paper changes, though tray and size stay', () => {
    const runs = (paper: object): number[] =>
      planOf({ tray: 'tray-1', sides: 'two-sided', routes: [{ pages: '2', paper }] }, [documentOf(3)]).sheets.map(
        ({ run }) => run,
      );
    expect(runs({ type: 'stationery' })).toEqual([1, 2, 3]);
    expect(runs({ orientation: 'landscape' })).toEqual([1, 2, 3]);
    expect(runs({ type: null, orientation: 'auto' })).toEqual([1, 1]);
  });

  test('routes by section, by the last page and by size', () => {
    const routes = [
      { pages: '2:', tray: 'tray-2' },
      { pages: 'last', tray: 'tray-3' },
      { pages: 'size a3', tray: 'tray-4' },
    ];
    const document = { ...sectioned, pages: sectioned.pages.map((page, index) => (index === 1 ? A3 : page)) };
    expect(outline(planOf({ tray: 'tray-1', routes }, [document]))).toEqual([
      'tray-1: 1',
      'tray-4: 2',
      'tray-1: 3',
      'tray-2: 4',
      'tray-2: 5',
      'tray-2: 6',
    ]);
  });

  test('labels are what a document’s routes mean too', () => {
    const document = documentWith(['i', 'ii', '1', '2'].map((label) => ({ label })));
    const ticket = readTicket({
      version: 1,
      documents: [{ file: 'manual.pdf', pages: 'ii-2', numbering: 'labels' }],
      routes: [{ pages: '1', tray: 'tray-2' }],
    });
    const printer = profileForTicket(ticket, [document]);
    expect(printer.trays.map(({ id }) => id)).toEqual(['tray-2']);
  });
});

describe('slips (model, Plan)', () => {
  test('between documents they stand among the sheets, blank, of the size of the sheet before', () => {
    const documents = [documentOf(2), documentOf(1, A3), documentOf(1)];
    const plan = planOf({ slips: { between: 'documents' }, sides: 'two-sided', copies: 2 }, documents);
    expect(outline(plan)).toEqual(['tray-1: 1 | 2', 'tray-1: -', 'tray-4: 1 | -', 'tray-4: -', 'tray-1: 1 | -']);
    expect(plan.sheets.map(({ slip }) => slip)).toEqual([false, true, false, true, false]);
    expect(plan.sheets[3]).toMatchObject({ index: 4, run: 2, sides: 'one-sided', back: null });
    expect(plan.tally).toMatchObject({ sheetsPerSet: 5, sheets: 10, sides: 8, blankSides: 4 });
  });

  test('they part documents that would share a sheet', () => {
    const settings = { tray: 'tray-1', sides: 'two-sided' as const, newSheet: { documents: false } };
    const documents = [documentOf(1), documentOf(1)];
    expect(outline(planOf(settings, documents))).toEqual(['tray-1: 1 | 1']);
    const parted = planOf({ ...settings, slips: { between: 'documents', tray: 'tray-2' } }, documents);
    expect(outline(parted)).toEqual(['tray-1: 1 | -', 'tray-2: -', 'tray-1: 1 | -']);
  });

  test('between sets they stand apart, and one less than the sets is counted', () => {
    const plan = planOf({ tray: 'tray-1', copies: 5, slips: { between: 'sets', tray: 'tray-4' } }, [documentOf(3)]);
    expect(plan.sheets).toHaveLength(3);
    expect(plan.slipBetweenSets).toEqual({
      tray: 'tray-4',
      paper: { size: 'iso_a3_297x420mm', ...readSizeName('iso_a3_297x420mm') },
    });
    expect(plan.tally).toMatchObject({
      sheetsPerSet: 3,
      sheets: 19,
      byTray: { 'tray-1': 15, 'tray-4': 4 },
      byPaper: { iso_a4_210x297mm: 15 },
    });
    expect(planOf({ slips: { between: 'sets' } }, [documentOf(1, A3)]).slipBetweenSets!.tray).toBe('tray-4');
  });

  test('sheets that are not in sets have no place for slips between sets', () => {
    const slips = { between: 'sets' as const };
    expect(planOf({ copies: 3, collate: false, slips }, [documentOf(2)]).slipBetweenSets).toBeNull();
    expect(planOf({ copies: 3, collate: false, slips }, [documentOf(1)]).tally.sheets).toBe(5);
  });

  test('a printer made for the ticket has the trays of covers and slips', () => {
    const settings: Omit<TicketInput, 'version' | 'documents'> = {
      layout: { kind: 'booklet', cover: 'cover' },
      slips: { between: 'sets', tray: 'pink' },
      copies: 2,
    };
    const ticket = readTicket({ version: 1, documents: [{ file: 'manual.pdf' }], ...settings });
    const printer = profileForTicket(ticket, [documentOf(8)]);
    expect(printer.trays.map(({ id, size }) => `${id} ${size}`)).toEqual([
      'cover iso_a4_210x297mm',
      'pink iso_a4_210x297mm',
    ]);
  });
});

describe('the order of printing', () => {
  const order = (settings: object): string[] => {
    const plan = planOf({ tray: 'tray-1', copies: 2, ...settings }, [documentOf(3)]);
    return [...everySheet(plan)].map(({ set, sheet }) => `${set}/${sheet.slip ? 'slip' : sheet.index}`);
  };

  test('sets one after another, or the copies of a sheet together', () => {
    expect(order({})).toEqual(['1/1', '1/2', '1/3', '2/1', '2/2', '2/3']);
    expect(order({ collate: false })).toEqual(['1/1', '2/1', '1/2', '2/2', '1/3', '2/3']);
    expect(order({ collate: false, pages: '1-2' })).toEqual(['1/1', '2/1', '1/2', '2/2']);
  });

  test('the last sheet first for printers that stack face up', () => {
    expect(order({ delivery: 'last-to-first' })).toEqual(['1/3', '1/2', '1/1', '2/3', '2/2', '2/1']);
  });

  test('a slip between sets, none after the last', () => {
    expect(order({ slips: { between: 'sets' } })).toEqual(['1/1', '1/2', '1/3', '1/slip', '2/1', '2/2', '2/3']);
  });

  test('as sent: in the order of printing; sets are written out only for slips between them', () => {
    const plan = planOf({ tray: 'tray-1', copies: 2, delivery: 'last-to-first' }, [documentOf(3)]);
    expect(asSent(plan, readPrinter(OFFICE))).toMatchObject({
      sets: 2,
      sheets: [{ index: 3 }, { index: 2 }, { index: 1 }],
    });
    const slips = planOf({ tray: 'tray-1', copies: 3, slips: { between: 'sets' } }, [documentOf(1)]);
    expect(asSent(slips, readPrinter(OFFICE))).toMatchObject({ sets: 1, slipBetweenSets: null });
    expect(asSent(slips, readPrinter(OFFICE)).sheets.map(({ slip }) => slip)).toEqual([
      false,
      true,
      false,
      true,
      false,
    ]);
    expect(printingOrder(slips)).toEqual(slips.sheets);
  });
});

describe('paper (model, Planning 3 and 7)', () => {
  test('mixed sizes each on their own paper, or all on one', () => {
    const mixed = [{ name: 'm.pdf', pages: [...documentOf(1).pages, A3, ...documentOf(1).pages] }];
    expect(outline(planOf({}, mixed))).toEqual(['tray-1: 1', 'tray-4: 2', 'tray-1: 3']);
    const one = planOf({ paper: { size: 'iso_a4_210x297mm' } }, mixed);
    expect(outline(one)).toEqual(['tray-1: 1', 'tray-1: 2', 'tray-1: 3']);
    expect(one.sheets[1]!.front.cells[0]!.scale).toBeCloseTo(Math.SQRT1_2, 2);
  });

  test('pages alike in one edge alone are not of one size', () => {
    const sizes = planOf({}, [documentWith([{}, { height: 595.276 }, { width: 841.89 }, {}])]).sheets;
    expect(sizes.map(({ front }) => front.cells[0]!.height)).toEqual([841.89, 595.276, 841.89, 841.89]);
  });

  test('a type asked for is looked for by auto', () => {
    const letterhead = planOf({ paper: { type: 'stationery-letterhead' } }, [documentOf(1)]);
    expect(letterhead.sheets[0]!.tray).toBe('tray-2');
  });

  test('a size of no name is an error at its place', () => {
    expect(() => planOf({ paper: { size: 'A4' } }, [documentOf(1)])).toThrow('paper.size: "A4" is not a PWG 5101.1');
    const routes = [{ pages: '1', paper: { size: 'custom_none_0x0mm' } }];
    expect(() => planOf({ routes }, [documentOf(1)])).toThrow('routes[0].paper.size: "custom_none_0x0mm"');
  });
});

test('100,000 pages in all documents are planned, more are an error that says so', () => {
  const documents = [documentOf(1), documentOf(1)];
  expect(planOf({ pages: '1 x5000 x10', tray: 'tray-1' }, documents, OFFICE).tally.sheets).toBe(100_000);
  expect(() => planOf({ pages: '1 x9999 x6', tray: 'tray-1' }, documents, OFFICE)).toThrow(
    'documents[1].pages: the documents choose more than 100000 pages in all; choose fewer pages',
  );
});
