import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { JobDocument, SeriesRecord } from '@foglio/api';
import { plainTicket } from '@foglio/core';
import { NEVER, of, Subject, type Observable } from 'rxjs';
import { aDocument } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { SeriesPlanner } from './series-planner';
import { SeriesStore } from './series-store';

const record = (id: string, change: Partial<SeriesRecord> = {}): SeriesRecord => ({
  id,
  title: id,
  printerId: 'p',
  state: 'draft',
  message: null,
  revision: 1,
  createdAt: '2026-11-25T10:00:00Z',
  startedAt: null,
  setup: plainTicket(['*']),
  rows: [],
  ...change,
});

/** A server that answers when a test says so, in whatever order. */
function begin() {
  const asked: { readonly what: string; readonly answer: Subject<never> }[] = [];
  const ask =
    (what: string) =>
    (id = ''): Observable<never> => {
      const answer = new Subject<never>();
      asked.push({ what: `${what} ${id}`.trim(), answer });
      return answer;
    };
  const api = {
    series: ask('series'),
    seriesDocuments: ask('documents'),
    skipSeriesFile: (_id: string, row: string) => ask('skip')(row),
    allSeries: () => of([]),
    setups: () => of([]),
  };
  const opened = new Subject<void>();
  const told = new Subject<{ topic: 'series'; id: string }>();
  TestBed.configureTestingModule({
    providers: [
      SeriesStore,
      { provide: Api, useValue: api },
      { provide: News, useValue: { opened, of: (topic: string) => (topic === 'series' ? told : NEVER) } },
      { provide: PrintersNow, useValue: { all: () => null, keepListed: () => NEVER, see: () => undefined } },
      { provide: SeriesPlanner, useValue: { plan: () => of(new Map()) } },
    ],
  });
  const store = TestBed.inject(SeriesStore);
  /** Answers the first question of that kind that has none yet. */
  const answer = async (what: string, given: unknown): Promise<void> => {
    const at = asked.findIndex((one) => one.what === what);
    const [question] = asked.splice(at, 1);
    if (given instanceof Error || given instanceof HttpErrorResponse) question!.answer.error(given);
    else question!.answer.next(given as never);
    question!.answer.complete();
    await settled();
  };
  return { store, asked, answer, told, opened, ask };
}

/** Lets every promise that stands take its turn. */
const settled = async (): Promise<void> => {
  for (let turn = 0; turn < 20; turn += 1) await Promise.resolve();
};

test('an answer about the series that was shown before changes nothing', async () => {
  const { store, answer } = begin();
  store.open('a');
  store.open('b');
  await answer('series b', record('b'));
  await answer('series a', record('a'));
  expect(store.series()?.id).toBe('b');
  const late: JobDocument[] = [aDocument([{ width: 595, height: 842 }])];
  await answer('documents a', late);
  expect(store.isReading()).toBe(false);
  await answer('documents b', late);
  expect(store.isReading()).toBe(true);
});

test('changes go one after the other, and what is on the screen meanwhile is not overwritten by an answer to an older one', async () => {
  const { store, answer, asked, ask } = begin();
  store.open('a');
  await answer('series a', record('a', { rows: [] }));
  await answer('documents a', []);
  const done = [store.change(({ id }) => ask('first')(id)), store.change(({ id }) => ask('second')(id))];
  await settled();
  expect([asked.map(({ what }) => what), store.busy()]).toEqual([['first a'], true]);
  await answer('first a', record('a', { title: 'first', revision: 2 }));
  expect([store.series()?.title, asked.map(({ what }) => what)]).toEqual(['a', ['second a']]);
  await answer('second a', record('a', { title: 'second', revision: 3 }));
  expect(store.series()?.title).toBe('second');
  await answer('series a', record('a', { title: 'second', revision: 3 }));
  await answer('documents a', []);
  await Promise.all(done);
  expect(store.busy()).toBe(false);
});

test('a change that fails is told, and the next one is made all the same', async () => {
  const { store, answer, ask } = begin();
  store.open('a');
  await answer('series a', record('a'));
  await answer('documents a', []);
  void store.change(({ id }) => ask('first')(id));
  void store.change(({ id }) => ask('second')(id));
  await settled();
  await answer('first a', new HttpErrorResponse({ status: 409, error: { detail: 'Another window changed it.' } }));
  expect(store.message()).toBe('Another window changed it.');
  await answer('second a', record('a', { title: 'second' }));
  expect([store.series()?.title, store.message()]).toEqual(['second', 'Another window changed it.']);
  void store.change(({ id }) => ask('third')(id));
  expect(store.message()).toBeNull();
});

test('several are left out one after the other: one that fails is told to the end, and the rest are left out all the same', async () => {
  const { store, answer, asked } = begin();
  store.open('a');
  await answer('series a', record('a'));
  await answer('documents a', []);
  const done = store.leaveOut([{ id: 'one' }, { id: 'two' }, { id: 'three' }], true);
  await settled();
  // Each waits for the answer before, however late it comes, and nothing else is asked meanwhile.
  expect([asked.map(({ what }) => what), store.busy()]).toEqual([['skip one'], true]);
  await answer(
    'skip one',
    new HttpErrorResponse({ status: 404, error: { detail: 'This file is not in the series.' } }),
  );
  expect(asked.map(({ what }) => what)).toEqual(['skip two']);
  await answer('skip two', record('a', { revision: 2 }));
  expect([asked.map(({ what }) => what), store.message()]).toEqual([['skip three'], 'This file is not in the series.']);
  await answer('skip three', record('a', { revision: 3 }));
  expect(store.series()?.revision).toBe(3);
  await answer('series a', record('a', { revision: 3 }));
  await answer('documents a', []);
  await done;
  expect([store.busy(), store.message()]).toEqual([false, 'This file is not in the series.']);
});

test('whoever goes elsewhere meanwhile has them left out too, and what is shown then stays', async () => {
  const { store, answer, asked } = begin();
  store.open('a');
  await answer('series a', record('a'));
  await answer('documents a', []);
  void store.leaveOut([{ id: 'one' }, { id: 'two' }], true);
  await settled();
  store.open('b');
  await answer('series b', record('b'));
  await answer('skip one', record('a', { revision: 2 }));
  await answer('skip two', record('a', { revision: 3 }));
  expect([store.series()?.id, asked.some(({ what }) => what.startsWith('skip'))]).toEqual(['b', false]);
});

test('a word of it is asked after, once the answer before has come; a word of another is not', async () => {
  const { store, answer, asked, told } = begin();
  store.open('a');
  await answer('series a', record('a'));
  await answer('documents a', []);
  told.next({ topic: 'series', id: 'b' });
  expect(asked).toEqual([]);
  told.next({ topic: 'series', id: 'a' });
  told.next({ topic: 'series', id: 'a' });
  await settled();
  expect(asked.map(({ what }) => what)).toEqual(['series a']);
  await answer('series a', record('a', { revision: 2 }));
  // Of another revision, so its documents are asked for too; only then the word that came meanwhile.
  expect(asked.map(({ what }) => what)).toEqual(['documents a']);
  await answer('documents a', []);
  expect(asked.map(({ what }) => what)).toEqual(['series a']);
});

test('once the screen is left, nothing is asked any more', async () => {
  const { store, answer, asked, told, opened } = begin();
  store.open('a');
  await answer('series a', record('a'));
  await answer('documents a', []);
  TestBed.resetTestingModule();
  told.next({ topic: 'series', id: 'a' });
  opened.next();
  await settled();
  expect(asked).toEqual([]);
});
