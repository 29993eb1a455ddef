import { EventEmitter } from 'node:events';
import { Keeper, type KeeperOptions } from '../src/sendings/keeper';

/** How often the keeper looks, by a clock of the test's own. */

const FOLLOW_MS = 300;
const REST_MS = 5_000;

let looks: number;
let goingOn: object[];
let meanwhile: () => void;
let presence: EventEmitter;
let keeper: Keeper;

beforeEach(async () => {
  jest.useFakeTimers();
  looks = 0;
  goingOn = [];
  meanwhile = () => undefined;
  presence = new EventEmitter();
  const found = {
    from: () => ({
      leftJoin: () => ({
        where: () => ({
          orderBy: () => {
            looks += 1;
            meanwhile();
            return Promise.resolve(goingOn.map((sending) => ({ sending })));
          },
        }),
      }),
    }),
  };
  const db = { select: () => found };
  keeper = new Keeper({
    db,
    presence,
    enqueue: () => Promise.resolve(),
    followMs: FOLLOW_MS,
    askAgain: () => Promise.resolve(),
    heldBack: () => Promise.resolve(new Set()),
  } as unknown as KeeperOptions);
  await keeper.start();
  looks = 0;
});
afterEach(async () => {
  await keeper.stop();
  jest.useRealTimers();
});

/** One that a person has to turn over: nothing is asked for it. */
const TURNING = { id: 'a', state: 'turning', printerId: 'p' };

test('while something goes on it looks several times a second', async () => {
  goingOn = [TURNING];
  await jest.advanceTimersByTimeAsync(10 * FOLLOW_MS);
  expect(looks).toBe(10);
});

test('while nothing does it looks now and then, and at once when it hears of something', async () => {
  await jest.advanceTimersByTimeAsync(FOLLOW_MS + REST_MS - 1);
  expect(looks).toBe(1);
  await jest.advanceTimersByTimeAsync(1);
  expect(looks).toBe(2);
  goingOn = [TURNING];
  presence.emit('sending', 'a');
  await jest.advanceTimersByTimeAsync(2 * FOLLOW_MS);
  expect(looks).toBe(4);
});

test('what it hears of in the middle of a round is not slept over', async () => {
  meanwhile = () => {
    meanwhile = () => undefined;
    presence.emit('sending', 'a');
  };
  await jest.advanceTimersByTimeAsync(FOLLOW_MS);
  expect(looks).toBe(1);
  await jest.advanceTimersByTimeAsync(FOLLOW_MS);
  expect(looks).toBe(2);
  await jest.advanceTimersByTimeAsync(REST_MS - 1);
  expect(looks).toBe(2);
});

test('stopped, it hears nothing any more', async () => {
  await jest.advanceTimersByTimeAsync(FOLLOW_MS);
  await keeper.stop();
  presence.emit('sending', 'a');
  await jest.advanceTimersByTimeAsync(REST_MS);
  expect(looks).toBe(1);
  expect(presence.listenerCount('sending')).toBe(0);
});
