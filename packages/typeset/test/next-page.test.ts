import { EventEmitter } from 'node:events';
import { NextPage } from '../src/browser/next-page';
import type { OpenPage } from '../src/browser/print-page';

/** Pages that are opened one by one, and what becomes of them; no browser is needed for when. */

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function pages(): { open: () => Promise<OpenPage>; opened: EventEmitter[]; fail: (next: number) => void } {
  const opened: EventEmitter[] = [];
  let failures = 0;
  return {
    opened,
    fail: (next) => (failures = next),
    open: () => {
      const page = new EventEmitter();
      opened.push(page);
      if (failures > 0) return Promise.reject(new Error(`the page ${(failures -= 1)} cannot be opened`));
      return Promise.resolve({ page, refused: new Set(), close: () => Promise.resolve() } as unknown as OpenPage);
    },
  };
}

const pageOf = async (next: NextPage): Promise<unknown> => (await next.take()).page;

test('what is only likely to be needed is fetched where nobody waits', async () => {
  const asked: boolean[] = [];
  const { open } = pages();
  const next = new NextPage((isAhead) => (asked.push(isAhead), open()), 0);
  await next.take();
  next.getReady();
  await jest.advanceTimersByTimeAsync(0);
  expect(asked).toEqual([false, true]);
});

test('the page for the next document is opened some time after one, and is for that one alone', async () => {
  const { open, opened } = pages();
  const next = new NextPage(open, 1_500);
  expect(await pageOf(next)).toBe(opened[0]);
  next.getReady();
  await jest.advanceTimersByTimeAsync(1_400);
  expect(opened).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(100);
  expect(opened).toHaveLength(2);
  expect(await pageOf(next)).toBe(opened[1]);
  expect(await pageOf(next)).toBe(opened[2]);
});

test('documents that come at once open a page each, and one waits after them', async () => {
  const { open, opened } = pages();
  const next = new NextPage(open, 1_500);
  await Promise.all([next.take(), next.take()]);
  next.getReady();
  next.getReady();
  await jest.advanceTimersByTimeAsync(5_000);
  expect(opened).toHaveLength(3);
});

test.each(['crash', 'close'])('one that ends by itself (%s) is given to nobody', async (end) => {
  const { open, opened } = pages();
  const next = new NextPage(open, 0);
  next.getReady();
  await jest.advanceTimersByTimeAsync(0);
  opened[0]!.emit(end);
  expect(await pageOf(next)).toBe(opened[1]);
});

test('one that cannot be opened is opened again for whoever needs it', async () => {
  const { open, opened, fail } = pages();
  const next = new NextPage(open, 0);
  fail(1);
  next.getReady();
  await jest.advanceTimersByTimeAsync(0);
  expect(await pageOf(next)).toBe(opened[1]);
});

test('none is opened for a browser that is for one document, or ends', async () => {
  const { open, opened } = pages();
  const alone = new NextPage(open, null);
  alone.getReady();
  const closed = new NextPage(open, 10);
  closed.getReady();
  closed.close();
  await jest.advanceTimersByTimeAsync(1_000);
  expect(opened).toHaveLength(0);
});
