import { A3, documentOf, LETTER, OFFICE, planOf } from './jobs';

const codes = (plan: ReturnType<typeof planOf>): string[] => plan.checks.map(({ code }) => code);

test('a plan with nothing to say has no checks', () => {
  expect(planOf({ tray: 'tray-1' }, [documentOf(4)]).checks).toEqual([]);
});

test('tray-unknown: a named tray is not in the printer', () => {
  const plan = planOf({ tray: 'tray-9' }, [documentOf(2)]);
  expect(plan.checks).toEqual([
    expect.objectContaining({
      code: 'tray-unknown',
      level: 'stop',
      sheets: [1, 2],
      pages: [
        { document: 1, page: 1 },
        { document: 1, page: 2 },
      ],
    }),
  ]);
  expect(plan.sheets[0]!.tray).toBe('tray-9');
});

test('tray-wrong-paper: a named tray holds another size', () => {
  const [check] = planOf({ tray: 'tray-1' }, [documentOf(1, A3)]).checks;
  expect(check).toMatchObject({ code: 'tray-wrong-paper', level: 'stop', sheets: [1] });
  expect(check!.message).toBe('Tray 1 holds A4, but these pages need A3.');
});

test('no-tray-for-paper: auto finds no tray with the size', () => {
  const [check] = planOf({}, [documentOf(1, LETTER)]).checks;
  expect(check).toMatchObject({ code: 'no-tray-for-paper', level: 'stop' });
  expect(check!.message).toContain('US Letter');
});

describe('tray-short', () => {
  test('in sets: says at which sheet of which set it runs out', () => {
    // Six sheets a set from tray 3, which holds 40: set 7 begins with sheet 37 and lacks its fifth.
    const [check] = planOf({ tray: 'tray-3', copies: 7 }, [documentOf(6)]).checks;
    expect(check).toMatchObject({ code: 'tray-short', level: 'caution', sheets: [5], set: 7 });
    expect(check!.message).toBe('Tray 3 holds 40 of the 42 sheets needed; it runs out at sheet 5 of set 7.');
  });

  test('sheet by sheet: the copies of one sheet come together', () => {
    const plan = planOf({ tray: 'tray-3', copies: 7, collate: false }, [documentOf(6)]);
    expect(plan.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [6], set: 6 });
  });

  test('exactly enough is enough, and an unknown amount is not guessed', () => {
    expect(codes(planOf({ tray: 'tray-3', copies: 8 }, [documentOf(5)]))).toEqual([]);
    const trays = OFFICE.trays.map(({ loaded: _, ...tray }) => tray);
    expect(codes(planOf({ tray: 'tray-3', copies: 30 }, [documentOf(5)], { ...OFFICE, trays }))).toEqual([]);
  });
});

test('blank-back: only where another run follows', () => {
  const routes = [{ pages: '2', tray: 'tray-2' }];
  const [check, ...others] = planOf({ tray: 'tray-1', sides: 'two-sided', routes }, [documentOf(3)]).checks;
  expect(check).toMatchObject({ code: 'blank-back', level: 'note', sheets: [1, 2] });
  expect(check!.message).toBe(
    'The backs of sheets 1 and 2 stay blank: the pages after them are printed in another way.',
  );
  expect(others).toEqual([]);
  const many = ['2', '4', '6'].map((pages) => ({ pages, tray: 'tray-2' }));
  const [several] = planOf({ tray: 'tray-1', sides: 'two-sided', routes: many }, [documentOf(7)]).checks;
  expect(several!.message).toContain('The backs of 6 sheets a set stay blank');
  expect(codes(planOf({ tray: 'tray-1', sides: 'two-sided' }, [documentOf(3)]))).toEqual([]);
});

test('large-run: above 200 sheets', () => {
  expect(codes(planOf({ tray: 'tray-1', copies: 20 }, [documentOf(10)]))).toEqual([]);
  const [check] = planOf({ tray: 'tray-1', copies: 21 }, [documentOf(10)]).checks;
  expect(check).toMatchObject({ code: 'large-run', level: 'caution' });
  expect(check!.message).toBe('This prints 210 sheets: 21 sets of 10 sheets.');
});
