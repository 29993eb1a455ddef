import type { SendingRecord } from '@foglio/api';
import { HttpErrorResponse } from '@angular/common/http';
import { Subject, timer, map, throwError, mergeMap, type Observable } from 'rxjs';
import { aSending } from '../../stubs/records';
import type { Api } from '../api/api';
import { ALL_OF_LATE, findSendings } from '../queue/find-sendings';
import { place } from './queue.effects';
import { QueueActions, queueFeature } from './queue.state';

const LATE = 3_000;
const START = '2026-11-25T09:00:0';

const waiting = (id: string, at: number): SendingRecord =>
  aSending({ id, state: 'queued', printerId: 'p', turnAt: `${START}${at}Z`, updatedAt: `${START}${at}Z` });

/** The list as it is shown. */
const shown = ({ sendings, moves }: ReturnType<typeof queueFeature.reducer>): string => {
  const { groups } = findSendings(sendings ?? [], ALL_OF_LATE, Date.parse(`${START}9Z`), moves);
  return groups[0]!.sendings.map(({ id }) => id).join('');
};

/** The Queue over a server that answers three seconds late. */
function begin(answers: ((id: string) => Observable<SendingRecord>)[]) {
  const asked: string[] = [];
  const api = {
    placeSending: (id: string, before: string | null) => {
      asked.push(`${id} before ${before}`);
      return timer(LATE).pipe(mergeMap(() => answers[asked.length - 1]!(id)));
    },
  };
  const { reducer } = queueFeature;
  const sendings = ['a', 'b', 'c', 'd'].map(waiting);
  let state = reducer(reducer(undefined, { type: 'begin' }), QueueActions.listed({ sendings }));
  const actions = new Subject<ReturnType<typeof QueueActions.place>>();
  place(actions as never, api as unknown as Api).subscribe((action) => (state = reducer(state, action)));
  const move = (id: string, before: string | null): void => {
    const action = QueueActions.place({ id, before });
    state = reducer(state, action);
    actions.next(action);
  };
  return { asked, move, now: () => [shown(state), state.message] };
}

const placed =
  (turnAt: string, updatedAt: string) =>
  (id: string): Observable<SendingRecord> =>
    timer(0).pipe(map(() => ({ ...waiting(id, 0), turnAt, updatedAt })));

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('moved twice before the first answer, it stands where the second press put it, and stays there', async () => {
  const queue = begin([placed(`${START}1.5Z`, `${START}5Z`), placed(`${START}2.5Z`, `${START}6Z`)]);
  queue.move('a', 'c');
  expect(queue.now()).toEqual(['bacd', null]);
  queue.move('a', 'd');
  expect(queue.now()).toEqual(['bcad', null]);
  await jest.advanceTimersByTimeAsync(LATE);
  expect(queue.now()).toEqual(['bcad', null]);
  await jest.advanceTimersByTimeAsync(LATE);
  expect(queue.now()).toEqual(['bcad', null]);
  expect(queue.asked).toEqual(['a before c', 'a before d']);
});

test('one that is refused goes back, with the reason; what was moved after it stays moved', async () => {
  const refused = () =>
    throwError(() => new HttpErrorResponse({ status: 409, error: { detail: 'It is being sent.' } }));
  const queue = begin([refused, placed(`${START}0.5Z`, `${START}5Z`)]);
  queue.move('a', null);
  queue.move('d', 'b');
  expect(queue.now()).toEqual(['dbca', null]);
  await jest.advanceTimersByTimeAsync(LATE);
  expect(queue.now()).toEqual(['adbc', 'It is being sent.']);
  await jest.advanceTimersByTimeAsync(LATE);
  // Nor is the reason gone before it was read.
  expect(queue.now()).toEqual(['adbc', 'It is being sent.']);
});
