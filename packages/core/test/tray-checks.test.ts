import { A3, A4, documentOf, LETTER, OFFICE, planOf } from './jobs';
import { codes, settle, traysOf } from './settle';

describe('tray-unknown: a named tray is not in the printer', () => {
  test('for pages, and the repair takes any tray that holds the paper', () => {
    const { check, before, after } = settle('tray-unknown', {
      settings: { tray: 'tray-9' },
      documents: [documentOf(2)],
    });
    expect(check).toMatchObject({
      level: 'stop',
      message:
        'The tray chosen for pages 1 and 2 (A4) is not in Upper office. It has Tray 1, Tray 2, Tray 3 and Tray 4.',
      sheets: [1, 2],
      pages: [
        { document: 1, page: 1 },
        { document: 1, page: 2 },
      ],
    });
    expect(before.sheets[0]!.tray).toBe('tray-9');
    expect(traysOf(after)).toEqual(['tray-1', 'tray-1']);
  });

  test('in a route, for a cover, and for slips between sets', () => {
    const routes = [{ pages: '2', tray: 'tray-9' }];
    expect(traysOf(settle('tray-unknown', { settings: { routes }, documents: [documentOf(2)] }).after)).toEqual([
      'tray-1',
      'tray-1',
    ]);
    const layout = { kind: 'booklet' as const, cover: 'tray-9' };
    expect(settle('tray-unknown', { settings: { layout }, documents: [documentOf(8)] }).check.sheets).toEqual([1]);
    const inRoute = { settings: { routes: [{ pages: '1-8', layout }] }, documents: [documentOf(8)] };
    expect(traysOf(settle('tray-unknown', inRoute).after)).toEqual(['tray-1', 'tray-1']);
    const slips = { between: 'sets' as const, tray: 'tray-9' };
    const sets = settle('tray-unknown', { settings: { slips, copies: 2 }, documents: [documentOf(1)] });
    expect(sets.check.sheets).toEqual([]);
    expect(sets.after!.slipBetweenSets!.tray).toBe('tray-1');
  });
});

describe('tray-wrong-paper: a named tray holds another size', () => {
  test('the tray that holds the size is offered', () => {
    const { check, after } = settle('tray-wrong-paper', {
      settings: { tray: 'tray-1' },
      documents: [documentOf(1, A3)],
    });
    expect(check).toMatchObject({ level: 'stop', sheets: [1] });
    expect(check.message).toBe('Tray 1 holds A4, but these pages need A3.');
    expect(check.repair!.label).toBe('Take A3 from Tray 4');
    expect(traysOf(after)).toEqual(['tray-4']);
  });

  test('where no tray holds it, scaling to what is loaded', () => {
    const documents = [{ name: 'm.pdf', pages: [A4, LETTER] }];
    const { check, after } = settle('tray-wrong-paper', {
      settings: { tray: 'tray-1', scale: { mode: 'none' } },
      documents,
    });
    expect(check.repair!.label).toBe('Fit these pages to the A4 in Tray 1');
    expect(after!.sheets.map(({ paper }) => paper.size)).toEqual(['iso_a4_210x297mm', 'iso_a4_210x297mm']);
    expect(after!.sheets[1]!.front.cells[0]!.scale).toBeLessThan(1);
    expect(after!.sheets[0]!.front.cells[0]!.scale).toBe(1);
  });

  test('a cover gets the tray that holds its size, or the paper of its booklet', () => {
    const layout = { kind: 'booklet' as const, cover: 'tray-4' };
    const cover = settle('tray-wrong-paper', { settings: { layout, tray: 'tray-2' }, documents: [documentOf(8)] });
    expect(cover.check.sheets).toEqual([1]);
    expect(traysOf(cover.after)).toEqual(['tray-1', 'tray-2']);
    const trays = [...OFFICE.trays, { id: 'tray-5', size: 'na_letter_8.5x11in' }];
    const letters = settle('tray-wrong-paper', {
      settings: { layout: { ...layout, cover: 'tray-5' }, paper: { size: 'iso_a5_148x210mm' }, tray: 'tray-6' },
      documents: [documentOf(8)],
      printer: { ...OFFICE, trays: [...trays, { id: 'tray-6', size: 'iso_a5_148x210mm' }] },
    });
    expect(traysOf(letters.after)).toEqual(['tray-6', 'tray-6']);
  });
});

describe('no-tray-for-paper: auto finds no tray with the size', () => {
  test('the paper nearest in size is offered', () => {
    const { check, after } = settle('no-tray-for-paper', { settings: {}, documents: [documentOf(1, LETTER)] });
    expect(check).toMatchObject({ level: 'stop', message: 'No tray of Upper office holds US Letter.' });
    expect(check.repair!.label).toBe('Fit these pages to the A4 in Tray 1');
    expect(after!.sheets[0]!.paper.size).toBe('iso_a4_210x297mm');
  });

  test('a type that no tray holds is given up', () => {
    const settings = { paper: { type: 'transparency' } };
    const { check, after } = settle('no-tray-for-paper', { settings, documents: [documentOf(1)] });
    expect(check.message).toBe('No tray of Upper office holds A4 of the type transparency.');
    expect(traysOf(after)).toEqual(['tray-1']);
    const letter = settle('no-tray-for-paper', { settings, documents: [documentOf(1, LETTER)] });
    expect(traysOf(letter.after)).toEqual(['tray-1']);
  });

  test('slips without a tray get the nearest one', () => {
    const trays = [{ id: 'tray-1', size: 'iso_a4_210x297mm' }];
    const settings = {
      paper: { size: 'iso_a3_297x420mm' },
      tray: 'tray-1',
      slips: { between: 'sets' as const },
      copies: 2,
    };
    const { check } = settle('no-tray-for-paper', {
      settings,
      documents: [documentOf(1)],
      printer: { ...OFFICE, trays },
    });
    expect(check.repair!.label).toBe('Take slips from tray-1');
  });
});

describe('tray-short', () => {
  test('in sets: says at which sheet of which set it runs out, and offers as many sets as there is paper for', () => {
    // Six sheets a set from tray 3, which holds 40: set 7 begins with sheet 37 and lacks its fifth.
    const { check, after } = settle('tray-short', {
      settings: { tray: 'tray-3', copies: 7 },
      documents: [documentOf(6)],
    });
    expect(check).toMatchObject({ level: 'caution', sheets: [5], set: 7 });
    expect(check.message).toBe('Tray 3 holds 40 of the 42 sheets needed; it runs out at sheet 5 of set 7.');
    expect(check.repair).toEqual({ label: 'Print 6 sets', patch: { copies: 6 } });
    expect(after!.tally.byTray['tray-3']).toBe(36);
  });

  test('sheet by sheet: the copies of one sheet come together', () => {
    const plan = planOf({ tray: 'tray-3', copies: 7, collate: false }, [documentOf(6)]);
    expect(plan.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [6], set: 6 });
  });

  test('last sheet first, the first sheets are the ones that lack', () => {
    const plan = planOf({ tray: 'tray-3', copies: 7, delivery: 'last-to-first' }, [documentOf(6)]);
    expect(plan.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [2], set: 7 });
  });

  test('slips between sets use paper too', () => {
    const slips = { between: 'sets' as const, tray: 'tray-3' };
    const within = planOf({ tray: 'tray-3', copies: 14, slips }, [documentOf(2)]);
    expect(within.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [2], set: 14 });
    const alone = settle('tray-short', { settings: { tray: 'tray-1', copies: 50, slips }, documents: [documentOf(1)] });
    expect(alone.check.message).toBe('Tray 3 holds 40 of the 49 sheets needed; it runs out at the slip after set 41.');
    expect(alone.after!.sets).toBe(41);
  });

  test('another tray with enough of the same paper is offered first', () => {
    const trays = [...OFFICE.trays, { id: 'tray-5', name: 'Tray 5', size: 'iso_a4_210x297mm', loaded: 900 }];
    const printer = { ...OFFICE, trays };
    const settings = { tray: 'tray-3', copies: 7, routes: [{ pages: '1', tray: 'tray-2' }] };
    const { check, after } = settle('tray-short', {
      settings: { ...settings, copies: 9 },
      documents: [documentOf(6)],
      printer,
    });
    expect(check.repair!.label).toBe('Take them from Tray 5');
    expect(new Set(traysOf(after))).toEqual(new Set(['tray-2', 'tray-5']));
    const auto = settle('tray-short', {
      settings: { copies: 100 },
      documents: [documentOf(6)],
      printer: { ...printer, trays: trays.map((tray) => (tray.id === 'tray-1' ? { ...tray, type: null } : tray)) },
    });
    expect(new Set(traysOf(auto.after))).toEqual(new Set(['tray-5']));
  });

  test('where not one set can be printed, nothing is offered', () => {
    const { check } = settle('tray-short', { settings: { tray: 'tray-3' }, documents: [documentOf(41)] });
    expect(check.repair).toBeUndefined();
  });

  test('exactly enough is enough, and an unknown amount is not guessed', () => {
    expect(codes(planOf({ tray: 'tray-3', copies: 8 }, [documentOf(5)]))).toEqual([]);
    const trays = OFFICE.trays.map(({ loaded: _, ...tray }) => tray);
    expect(codes(planOf({ tray: 'tray-3', copies: 30 }, [documentOf(5)], { ...OFFICE, trays }))).toEqual([]);
  });
});

describe('too-heavy-for-duplex', () => {
  const printer = { ...OFFICE, maxDuplexWeight: 110 };

  test('two-sided on paper above the limit; one-sided is offered', () => {
    const { check, after } = settle('too-heavy-for-duplex', {
      settings: { tray: 'tray-3', sides: 'two-sided' },
      documents: [documentOf(3)],
      printer,
    });
    expect(check).toMatchObject({ level: 'stop', sheets: [1, 2] });
    expect(check.message).toBe('The paper in Tray 3, 120 g/m², is too heavy to be turned over; 110 g/m² is the most.');
    expect(after!.sheets).toHaveLength(3);
    expect(codes(planOf({ tray: 'tray-3' }, [documentOf(3)], printer))).toEqual([]);
    expect(codes(planOf({ tray: 'tray-2', sides: 'two-sided' }, [documentOf(3)], printer))).toEqual([]);
  });

  test('a booklet or its cover gets lighter paper', () => {
    const layout = { kind: 'booklet' as const };
    const whole = { settings: { layout, tray: 'tray-3' }, documents: [documentOf(8)], printer };
    expect(traysOf(settle('too-heavy-for-duplex', whole).after)).toEqual(['tray-1', 'tray-1']);
    const cover = { ...whole, settings: { layout: { ...layout, cover: 'tray-3' }, tray: 'tray-2' } };
    expect(traysOf(settle('too-heavy-for-duplex', cover).after)).toEqual(['tray-1', 'tray-2']);
    const none = { ...printer, trays: OFFICE.trays.filter(({ id }) => id === 'tray-3') };
    expect(settle('too-heavy-for-duplex', { ...whole, printer: none }).after).toBeNull();
  });
});

describe('two-passes and two-passes-mixed', () => {
  const printer = { ...OFFICE, duplex: false, refeedTray: 'tray-1' };

  test('two-sided on a printer without a duplex unit: said how, and one-sided offered', () => {
    const routes = [{ pages: '1', sides: 'two-sided' as const }];
    const { check, after } = settle('two-passes', {
      settings: { sides: 'two-sided', routes },
      documents: [documentOf(4)],
      printer,
    });
    expect(check).toMatchObject({ level: 'caution' });
    expect(check.message).toBe(
      'Upper office prints one side at a time: after the fronts the stack is turned over as a whole and goes back into Tray 1.',
    );
    expect(after!.passes).toBeNull();
    const upper = planOf({ sides: 'two-sided' }, [documentOf(2)], { ...OFFICE, duplex: false, printsOn: 'upper' });
    expect(upper.checks[0]!.message).toContain('the stack goes back as it lies into the tray');
  });

  test('a booklet cannot be one-sided; sheets of two sizes get one', () => {
    const layout = { kind: 'booklet' as const };
    expect(settle('two-passes', { settings: { layout }, documents: [documentOf(4)], printer }).after).toBeNull();
    const documents = [documentOf(8), documentOf(4, A3)];
    const mixed = settle('two-passes-mixed', { settings: { layout }, documents, printer });
    expect(mixed.check).toMatchObject({ level: 'stop', sheets: [3] });
    expect(new Set(mixed.after!.sheets.map(({ paper }) => paper.size)).size).toBe(1);
    const slips = { between: 'sets' as const, tray: 'tray-4' };
    const sets = settle('two-passes-mixed', {
      settings: { layout, slips, copies: 2 },
      documents: [documentOf(4)],
      printer,
    });
    expect(sets.after!.slipBetweenSets!.paper.size).toBe('iso_a4_210x297mm');
    expect(
      settle('two-passes-mixed', { settings: { sides: 'two-sided' }, documents, printer }).after!.passes,
    ).toBeNull();
  });
});
