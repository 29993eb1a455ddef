import { deepStrictEqual as same } from 'node:assert/strict';
import fc from 'fast-check';
import { deliver, isInformationSheet, leaf, type Plan, type ReadPage } from '../src';
import { job, nameOf, planned, RUNS, selected, type Job } from './any-job';

/** Leafs through the whole stack and asks that every page comes in the order selected, and reads as the set is held. */
function expectInOrder(any: Job, made: Plan, pages: readonly ReadPage[]): void {
  const printed = pages.filter(({ cells }) => cells.length > 0);
  const wanted = selected(any);
  const before = pages.filter(({ sheet }) => isInformationSheet(sheet));
  // It lies before everything, once; its back, if it has one, comes with it.
  same(before.length > 0, made.informationSheet !== null);
  same(pages.slice(0, before.length), before);
  same(before[0]?.which ?? 'front', 'front');
  for (let set = 0; set < made.sets; set += 1) {
    const ofSet = printed.slice((set * printed.length) / made.sets, ((set + 1) * printed.length) / made.sets);
    same(
      ofSet.flatMap(({ cells }) => cells.map(nameOf)),
      wanted,
    );
  }
  // What is read across the way the set is held needs one and the same turn on fronts and backs.
  const folded = printed.filter(({ half }) => half !== null);
  same(
    folded.every(({ turn }) => turn === 0),
    true,
  );
  const turns = new Set(printed.filter(({ half }) => half === null).map(({ turn }) => turn));
  same(turns.has(180), false);
  same(turns.has(90) && turns.has(270), false);
  same(turns.size === 0 || turns.has(0), true);
}

describe('law: leafing through the delivered stack gives the pages in the order selected', () => {
  // Sheets that are not in sets do not read in order; that is what the check "uncollated" says.
  const inSets = fc
    .tuple(job, fc.boolean())
    .map(([any, print]) => ({ ...any, collate: true, informationSheet: { print } }));
  test.each(['face-down', 'face-up'] as const)('delivered %s, with the order such a printer needs', (delivers) => {
    // Face up, what comes out last lies on top: the last sheet must come first.
    const delivery = delivers === 'face-down' ? 'first-to-last' : 'last-to-first';
    fc.assert(
      fc.property(inSets, (any) => {
        const { plan: made, printer, ticket } = planned({ ...any, ...{ delivery } }, { delivers });
        expectInOrder(any, made, [...leaf(deliver(made, printer), ticket.bind)]);
      }),
      RUNS,
    );
  });

  const kinds = ['face-down', 'face-up'].flatMap((delivers) =>
    ['upper', 'lower'].map((printsOn) => [delivers, printsOn] as ['face-down' | 'face-up', 'upper' | 'lower']),
  );
  test.each(kinds)('in two passes: delivered %s, printed on the %s face', (delivers, printsOn) => {
    fc.assert(
      fc.property(inSets, (any) => {
        const { plan: made, printer, ticket } = planned(any, { delivers, printsOn, duplex: false });
        if (!made.passes) return;
        expectInOrder(any, made, [...leaf(deliver(made, printer), ticket.bind)]);
      }),
      RUNS,
    );
  });
});
