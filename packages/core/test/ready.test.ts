import fc from 'fast-check';
import { readyTimes, type Waiting } from '../src';
import { RUNS } from './any-job';

const job = (id: string, change: Partial<Waiting> = {}): Waiting => ({
  id,
  printerId: 'p',
  seconds: 60,
  done: 0,
  since: 0,
  ...change,
});

test('one after the other, each printer for itself', () => {
  const times = readyTimes([job('a'), job('b', { printerId: 'q' }), job('c')], 1_000);
  expect([...times.values()]).toEqual([
    { at: 61_000, before: 0 },
    { at: 61_000, before: 0 },
    { at: 121_000, before: 1 },
  ]);
});

test('of what is being printed the rest, from when it was known how much came out', () => {
  expect(readyTimes([job('a', { done: 0.75, since: 4_000 })], 10_000).get('a')!.at).toBe(19_000);
  expect(readyTimes([job('a', { done: 0.75, since: 4_000 })], 30_000).get('a')!.at).toBe(30_000);
});

test('where how long something takes is not known, neither is when what follows is ready', () => {
  const times = readyTimes([job('a', { seconds: null }), job('b')], 0);
  expect([...times.values()]).toEqual([
    { at: null, before: 0 },
    { at: null, before: 1 },
  ]);
});

test('law: nothing is ready before now, nor before what stands before it', () => {
  const any = fc.record({
    id: fc.uuid(),
    printerId: fc.constantFrom('p', 'q'),
    seconds: fc.integer({ min: 0, max: 1000 }),
    done: fc.double({ min: 0, max: 1, noNaN: true }),
    since: fc.integer({ min: 0, max: 100_000 }),
  });
  fc.assert(
    fc.property(fc.array(any), fc.integer({ min: 0, max: 100_000 }), (jobs, now) => {
      const times = readyTimes(jobs, now);
      for (const printer of ['p', 'q']) {
        const inOrder = jobs.filter(({ printerId }) => printerId === printer).map(({ id }) => times.get(id)!.at!);
        expect(inOrder.every((at, place) => at >= (inOrder[place - 1] ?? now))).toBe(true);
      }
    }),
    RUNS,
  );
});
