import {
  asSent,
  boxOfText,
  chooseWay,
  everySheet,
  isInformationSheet,
  mmToPoints,
  partOf,
  passPlan,
  plan,
  profileForTicket,
  setupOf,
  type DocumentFacts,
  type Plan,
  type PrinterInput,
} from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { A3, documentOf, OFFICE, planOf, type Settings } from './jobs';

const WANTED = { informationSheet: { print: true, by: 'Ada Quill' } };
const SENTENCE = 'Print all 3 pages of the season contract, 2 copies, on both sides.';

function told(documents: readonly DocumentFacts[], settings: object = {}, sentence = SENTENCE): Plan {
  const entries = documents.map(({ name }) => ({ file: name }));
  const ticket = readTicket({ version: 1, title: 'Season contract', documents: entries, ...WANTED, ...settings });
  return plan(ticket, documents, readPrinter(OFFICE), { now: '2026-09-01T14:05', sentence });
}

const linesOf = ({ informationSheet }: Plan): string[] => {
  const texts = [...(informationSheet?.front.texts ?? [])].sort((a, b) => b.y - a.y || a.x - b.x);
  return [...new Set(texts.map(({ y }) => y))].map((height) =>
    texts
      .filter(({ y }) => y === height)
      .map(({ text }) => text)
      .join(' | '),
  );
};

const about = { title: 'Contract of hire', author: 'B. Osei', created: '2026-08-03', modified: '2026-08-20T09:00' };

test('it says what the job is, who prints it and when, the sentence, the sheets by tray, and each file', () => {
  const documents = [{ ...documentOf(3), name: 'contract.pdf', about }, documentOf(1, A3, 'map.pdf')];
  expect(linesOf(told(documents, { copies: 2, sides: 'two-sided' }))).toEqual([
    'Season contract',
    'Printed by | Ada Quill',
    'On | 1 September 2026, 14:05',
    'Printer | Upper office',
    SENTENCE,
    // Two sets of two sheets, and this one.
    'Sheets | 5 from Tray 1, A4',
    '2 from Tray 4, A3',
    'Files | contract.pdf: 3 pages',
    '“Contract of hire”, by B. Osei, made 3 August 2026, changed 20 August 2026',
    'map.pdf: 1 page',
  ]);
});

test('what is not known is left out; without a title it has the name of the first file', () => {
  const made = planOf({ informationSheet: { print: true } }, [documentOf(1)]);
  expect(linesOf(made)).toEqual([
    'manual.pdf',
    'Printer | Upper office',
    'Sheets | 2 from Tray 1, A4',
    'Files | manual.pdf: 1 page',
  ]);
  expect(planOf({}, [documentOf(1)]).informationSheet).toBeNull();
});

test('all of it stays within the margin: long words are broken, and files there is no room for are counted', () => {
  const name = `${'unbroken'.repeat(30)}.pdf`;
  const many = Array.from({ length: 90 }, (_, at) => documentOf(1, undefined, `${at} ${at === 3 ? name : 'a.pdf'}`));
  const made = told(many, { title: 'A title of many words '.repeat(10) });
  const { front, paper } = made.informationSheet!;
  const edge = mmToPoints(15);
  for (const { x, y, width, height } of front.texts!.map(boxOfText)) {
    expect(x).toBeGreaterThanOrEqual(edge - 0.01);
    expect(x + width).toBeLessThanOrEqual(paper.width - edge + 0.01);
    expect(y).toBeGreaterThan(edge - 4);
    expect(y + height).toBeLessThan(paper.height - edge + 0.01);
  }
  const lines = linesOf(made);
  const listed = lines.filter((line) => /: 1 page$/.test(line)).length;
  expect(lines.at(-1)).toBe(`and ${90 - listed} files more`);
  expect(listed).toBeGreaterThan(20);
});

test('a sentence that is too long for the sheet ends with it', () => {
  const { front } = told([documentOf(1)], {}, 'and so on '.repeat(2_000)).informationSheet!;
  const lowest = Math.min(...front.texts!.map(({ y }) => y));
  expect(lowest).toBeGreaterThanOrEqual(mmToPoints(15));
  expect(lowest).toBeLessThan(mmToPoints(15) + 20);
});

describe('its paper', () => {
  const placed = (settings: Settings, printer: PrinterInput = OFFICE) => {
    const { tray, paper, sides } = planOf(
      { sides: 'two-sided', ...settings },
      [documentOf(4)],
      printer,
    ).informationSheet!;
    return `${tray} ${paper.size} ${sides}`;
  };

  test('is that of the first sheet, or what lies in the tray that is named for it', () => {
    expect(placed({ informationSheet: { print: true } })).toBe('tray-1 iso_a4_210x297mm two-sided-long-edge');
    expect(placed({ informationSheet: { print: true }, sides: 'one-sided' })).toBe('tray-1 iso_a4_210x297mm one-sided');
    expect(placed({ informationSheet: { print: true, tray: 'tray-4' } })).toBe(
      'tray-4 iso_a3_297x420mm two-sided-long-edge',
    );
  });

  test('does not go through the duplex unit where it has a face of its own or is too heavy', () => {
    expect(placed({ informationSheet: { print: true, tray: 'tray-2' } })).toMatch(/^tray-2 .* one-sided$/);
    const heavy = { informationSheet: { print: true, tray: 'tray-3' } };
    expect(placed(heavy)).toMatch(/^tray-3 .* two-sided-long-edge$/);
    expect(placed(heavy, { ...OFFICE, maxDuplexWeight: 100 })).toMatch(/^tray-3 .* one-sided$/);
  });

  test('a printer made for the ticket has its tray', () => {
    const ticket = readTicket({
      version: 1,
      documents: [{ file: 'a' }],
      informationSheet: { print: true, tray: 'pink' },
    });
    expect(profileForTicket(ticket, [documentOf(1)]).trays.map(({ id }) => id)).toContain('pink');
  });
});

test('it counts once in the totals, and in no set', () => {
  const settings = { tray: 'tray-1', copies: 3 };
  const without = planOf(settings, [documentOf(2)]).tally;
  const { tally } = planOf({ ...settings, informationSheet: { print: true, tray: 'tray-3' } }, [documentOf(2)]);
  expect(tally).toMatchObject({
    sheets: without.sheets + 1,
    sides: without.sides + 1,
    sheetsPerSet: without.sheetsPerSet,
    byPaper: without.byPaper,
    byTray: { ...without.byTray, 'tray-3': 1 },
  });
  // One side at 0.01, no price of paper; 120 g/m2 are 0.15 mm and, of A4, 7.484 g; 30 sides a minute.
  expect(tally.cost - without.cost).toBeCloseTo(0.01, 4);
  expect(tally.heightMm - without.heightMm).toBeCloseTo(0.15, 3);
  expect(tally.weightGrams - without.weightGrams).toBeCloseTo(120 * 0.21 * 0.297, 2);
  expect(tally.seconds! - without.seconds!).toBeCloseTo(2, 1);
});

describe('when it is printed', () => {
  const order = (settings: Settings): string[] =>
    [...everySheet(planOf({ ...WANTED, ...settings }, [documentOf(2)]))].map(({ set, sheet }) =>
      isInformationSheet(sheet) ? 'information' : `${set}/${sheet.index}`,
    );

  test('first; last where the last sheet is printed first', () => {
    expect(order({ copies: 2 })).toEqual(['information', '1/1', '1/2', '2/1', '2/2']);
    expect(order({ copies: 2, delivery: 'last-to-first' })).toEqual(['1/2', '1/1', '2/2', '2/1', 'information']);
    expect(order({ copies: 2, collate: false })).toEqual(['information', '1/1', '2/1', '1/2', '2/2']);
  });

  test('as sent, it is a sheet among the others, once; sets are written out for it', () => {
    const made = planOf({ ...WANTED, copies: 3 }, [documentOf(2)]);
    const sent = asSent(made, readPrinter(OFFICE));
    expect([sent.sets, sent.informationSheet, sent.sheets.length]).toEqual([1, null, 7]);
    expect(isInformationSheet(sent.sheets[0]!)).toBe(true);
    expect(asSent(planOf({ copies: 3 }, [documentOf(2)]), readPrinter(OFFICE))).toMatchObject({ sets: 3 });
    expect(partOf(made, made.sheets)).toMatchObject({ informationSheet: null, sheets: made.sheets });
  });

  test('its tray counts when the way of sending is chosen', () => {
    const printer = readPrinter({ ...OFFICE, jobs: { overrides: [] } });
    const from = (tray: string): Plan =>
      planOf({ tray: 'tray-1', informationSheet: { print: true, tray } }, [documentOf(2)]);
    expect([chooseWay(from('tray-1'), printer), chooseWay(from('tray-2'), printer)]).toEqual(['plain', 'separate']);
  });

  test('in the second of two passes its back, from where the stack went in', () => {
    const printer = { ...OFFICE, duplex: false, refeedTray: 'tray-2' };
    const made = planOf({ ...WANTED, tray: 'tray-1', sides: 'two-sided' }, [documentOf(4)], printer);
    const fronts = passPlan(made, 'front', 'tray-2');
    const backs = passPlan(made, 'back', 'tray-2');
    expect(fronts.informationSheet).toMatchObject({ tray: 'tray-1', sides: 'one-sided', back: null });
    expect(backs.informationSheet).toMatchObject({ tray: 'tray-2', front: { cells: [] }, back: null });
    expect(new Set(backs.sheets.map(({ tray }) => tray))).toEqual(new Set(['tray-2']));
    expect(new Set(fronts.sheets.map(({ tray }) => tray))).toEqual(new Set(['tray-1']));
  });
});

test.each(['upper', 'lower'] as const)(
  'in either pass it goes with the order of the sheets: printed on the %s face',
  (printsOn) => {
    for (const delivers of ['face-down', 'face-up'] as const) {
      const printer = { ...OFFICE, duplex: false, printsOn, delivers };
      const made = planOf({ ...WANTED, tray: 'tray-1', sides: 'two-sided' }, [documentOf(6)], printer);
      (['front', 'back'] as const).forEach((which, at) => {
        const order = made.passes![at]!.order;
        const sent = asSent(passPlan(made, which, null), readPrinter(printer)).sheets.map(({ index }) => index);
        expect(sent).toEqual(order[0] === 1 ? [0, ...order] : [...order, 0]);
      });
    }
  },
);

describe('checks', () => {
  const check = (code: string, settings: Settings, pages = 2, printer: PrinterInput = OFFICE) =>
    planOf(settings, [documentOf(pages)], printer).checks.find((one) => one.code === code);
  const onTray = (tray: string, loaded: number): PrinterInput => ({
    ...OFFICE,
    trays: OFFICE.trays.map((one) => (one.id === tray ? { ...one, loaded } : one)),
  });

  test('a tray that is not there, and the change that settles it', () => {
    const found = check('tray-unknown', { informationSheet: { print: true, by: 'A', tray: 'tray-9' } });
    expect(found?.message).toMatch(/^The tray chosen for a sheet beside the pages is not in /);
    expect(found?.repair?.patch.informationSheet).toEqual({ print: true, by: 'A', tray: 'auto' });
  });

  test('no tray holds its paper', () => {
    const small = { ...OFFICE, trays: OFFICE.trays.filter(({ id }) => id === 'tray-4') };
    const settings = { informationSheet: { print: true }, tray: 'tray-4', paper: { size: 'iso_a4_210x297mm' } };
    const found = check('no-tray-for-paper', settings, 1, small);
    expect(found?.repair).toMatchObject({
      label: 'Take the information sheet from Tray 4',
      patch: { informationSheet: { tray: 'tray-4' } },
    });
  });

  test('where a tray runs out', () => {
    const settings = { tray: 'tray-1', copies: 2, informationSheet: { print: true } };
    const where = (loaded: number, more: Settings = {}): string | undefined =>
      /runs out at (.*)\.$/.exec(
        check('tray-short', { ...settings, ...more }, 2, onTray('tray-1', loaded))?.message ?? '',
      )?.[1];
    expect([0, 1, 2, 3, 4, 5].map((loaded) => where(loaded))).toEqual([
      'the information sheet',
      'sheet 1 of set 1',
      'sheet 2 of set 1',
      'sheet 1 of set 2',
      'sheet 2 of set 2',
      undefined,
    ]);
    const last = { delivery: 'last-to-first' as const };
    expect([0, 4].map((loaded) => where(loaded, last))).toEqual(['sheet 2 of set 1', 'the information sheet']);
    const own = { informationSheet: { print: true, tray: 'tray-3' } };
    const found = check('tray-short', { ...settings, ...own }, 2, onTray('tray-3', 0));
    expect([found?.message.endsWith('runs out at the information sheet.'), found?.repair]).toEqual([true, undefined]);
  });

  test('so many sets as there is paper for beside it', () => {
    const found = check('tray-short', { tray: 'tray-1', copies: 9, ...WANTED }, 2, onTray('tray-1', 8));
    expect(found?.repair).toEqual({ label: 'Print 3 sets', patch: { copies: 3 } });
  });

  test('its size among those of two passes', () => {
    const settings = { sides: 'two-sided' as const, informationSheet: { print: true, tray: 'tray-4' } };
    const found = check('two-passes-mixed', settings, 4, { ...OFFICE, duplex: false });
    expect(found?.message).toBe('A stack of A4 and A3 cannot go back into one tray for its backs.');
  });

  test('a large run, with it', () => {
    const found = check('large-run', { tray: 'tray-1', copies: 250, ...WANTED }, 2);
    expect(found?.message).toBe('This prints 501 sheets: 250 sets of 2 sheets.');
    expect(found?.repair?.patch).toEqual({ copies: 99 });
  });
});

test('who prints a job is not of the set-up that is made of it', () => {
  const ticket = readTicket({ version: 1, documents: [{ file: 'a' }, { file: 'b' }], ...WANTED });
  expect(setupOf(ticket).informationSheet).toEqual({ print: true, by: '', tray: null });
  const one = readTicket({ version: 1, documents: [{ file: 'a' }], ...WANTED });
  expect(setupOf(one).informationSheet.by).toBe('');
});
