import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Plan } from '../src';
import { job, nameOf, planned, RUNS } from './any-job';
import { A3, A4, documentOf, documentWith, planOf, type Settings } from './jobs';

/** Each page as "document/page" in the order of printing. */
const order = ({ sheets }: Pick<Plan, 'sheets'>): string =>
  sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])].map(nameOf)).join(' ');

const three = [documentOf(3), documentOf(1, A4, 'b.pdf'), documentOf(2, A4, 'c.pdf')];
const turns = (settings: Settings, documents = three) =>
  planOf({ tray: 'tray-1', inTurn: true, ...settings }, documents);

describe('documents in turn (model, Pages and pieces)', () => {
  test('the first page of each, then the second of each; one at its end is passed over', () => {
    expect(order(turns({}))).toBe('1/1 2/1 3/1 1/2 3/2 1/3');
    expect(order(turns({ pages: 'last' }))).toBe('1/3 2/1 3/2');
  });

  test('one document is as it was', () => {
    expect(order(turns({}, [documentOf(3)]))).toBe('1/1 1/2 1/3');
  });

  test('two designs alternate over the cells of a side', () => {
    const designs = [documentOf(2, A4, 'a.pdf'), documentOf(2, A4, 'b.pdf')];
    const plan = turns({ layout: { kind: 'grid', pagesPerSide: 4 } }, designs);
    expect(plan.sheets).toHaveLength(1);
    expect(order(plan)).toBe('1/1 2/1 1/2 2/2');
  });

  test('new sheets and slips at documents and sections say nothing', () => {
    const sections = [{ title: 'Two', level: 1, page: 2, top: 0 }];
    const documents = ['a.pdf', 'b.pdf'].map((name) => ({ ...documentWith([{}, {}], sections), name }));
    const apart = { newSheet: { documents: true, sections: true }, slips: { between: 'documents' as const } };
    const { sheets } = turns({ ...apart, sides: 'two-sided' }, documents);
    expect(sheets.map(({ slip, front, back }) => [slip, front.cells.map(nameOf), back?.cells.map(nameOf)])).toEqual([
      [false, ['1/1'], ['2/1']],
      [false, ['1/2'], ['2/2']],
    ]);
  });

  test('paper and routes part them all the same', () => {
    const { sheets } = turns({ tray: 'auto', sides: 'two-sided' }, [documentOf(2), documentOf(2, A3, 'b.pdf')]);
    expect(sheets.map(({ tray }) => tray)).toEqual(['tray-1', 'tray-4', 'tray-1', 'tray-4']);
  });
});

test('law: in turn or not, the same pages are printed, each as often, and each document in its order', () => {
  fc.assert(
    fc.property(job, (any) => {
      fc.pre(any.layout.kind === 'grid');
      fc.pre(any.routes.every(({ layout }) => layout?.kind !== 'booklet'));
      const pagesOf = (inTurn: boolean): string[] => {
        const { plan } = planned({ ...any, ...{ inTurn } });
        return order(plan).split(' ');
      };
      const [turn, whole] = [pagesOf(true), pagesOf(false)];
      assert.deepEqual([...turn].sort(), [...whole].sort());
      any.documents.forEach((_, index) => {
        const ofOne = (names: string[]): string[] => names.filter((name) => name.startsWith(`${index + 1}/`));
        assert.deepEqual(ofOne(turn), ofOne(whole));
      });
    }),
    RUNS,
  );
});
