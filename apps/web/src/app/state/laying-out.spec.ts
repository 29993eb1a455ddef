import { HttpErrorResponse } from '@angular/common/http';
import type { FileRecord, JobDocument, NewsRecord } from '@foglio/api';
import type { Form, LaidOut } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import type { Action, Store } from '@ngrx/store';
import { BehaviorSubject, filter, map, merge, type Observable, of, Subject } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import type { Api } from '../api/api';
import type { News } from '../news/news';
import { BenchActions } from './bench.actions';
import { followLayingOut, layOut } from './bench.effects';
import { benchFeature, type BenchState } from './bench.state';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const PAGE = { width: 595.276, height: 841.89 };
const laidAs = (form: Form): LaidOut => ({ kind: 'workbook', form, taken: {}, sheets: [] });
const book = (id: string, form: Form = {}): JobDocument =>
  ({ ...aDocument([PAGE], { id, name: 'budget.xlsx' }), laid: laidAs(form) }) as JobDocument;
const record = (id: string, form: Form): FileRecord => ({ ...book(id, form), bytes: 9 });

const ticket = readTicket({ version: 1, documents: [{ file: 'f' }] });
const asking = (...forms: Form[]) => ({
  ...ticket,
  documents: forms.map((form) => ({ ...ticket.documents[0]!, form })),
});

/** A Bench with a workbook on it, and a server that answers when it is told to. */
function bench(documents = [book('f')], began = ticket) {
  const { reducer } = benchFeature;
  const printer = aPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }, { id: 'p' });
  const job = {
    id: 'j',
    ticket: began,
    revision: 1,
    printerId: 'p',
    updatedAt: '2026-11-25T10:00:00Z',
    lastSentAt: null,
    came: null,
    documents,
  };
  const opened = reducer(undefined, BenchActions.opened({ jobId: 'j' }));
  const state = new BehaviorSubject<BenchState>(reducer(opened, BenchActions.loaded({ job, printer, setups: [] })));
  const dispatch = (action: Action): void => state.next(reducer(state.value, action));
  const store = {
    select: <T>(selector: (root: object) => T) => state.pipe(map((one) => selector({ bench: one }))),
  } as unknown as Store;
  const asked: { form: Form; answer: Subject<FileRecord> }[] = [];
  const api = {
    layOut: (_id: string, form: Form) => {
      const answer = new Subject<FileRecord>();
      asked.push({ form, answer });
      return answer;
    },
  } as unknown as Api;
  layOut(store, api).subscribe(dispatch);
  const change = (...forms: Form[]): void => dispatch(BenchActions.ticketChanged({ ticket: asking(...forms) }));
  return { asked, change, dispatch, store, now: () => state.value };
}

const away = new HttpErrorResponse({ status: 0 });

test('what is asked is laid out, and the file that comes of it stands for the document; one step undoes both', () => {
  const { asked, change, dispatch, now } = bench();
  change({ fit: 'width' });
  expect(asked.map(({ form }) => form)).toEqual([{ fit: 'width' }]);
  asked[0]!.answer.next(record('g', { fit: 'width' }));
  asked[0]!.answer.complete();
  expect(now().ticket?.documents).toMatchObject([{ file: 'g', form: { fit: 'width' } }]);
  expect([now().documents[0]?.id, now().saving, now().past.length]).toEqual(['g', 'unsaved', 1]);
  dispatch(BenchActions.undone());
  expect([now().ticket, now().documents[0]?.id]).toEqual([ticket, 'f']);
  dispatch(BenchActions.redone());
  // What is done again has the file of its own form at once.
  expect([now().documents[0]?.id, asked.length]).toEqual(['g', 1]);
});

test('of two wishes only the latest is taken, whichever is answered last', () => {
  const { asked, change, now } = bench();
  change({ fit: 'width' });
  change({ fit: 'page' });
  expect(asked.map(({ form }) => form)).toEqual([{ fit: 'width' }, { fit: 'page' }]);
  asked[1]!.answer.next(record('page', { fit: 'page' }));
  asked[0]!.answer.next(record('width', { fit: 'width' }));
  expect(now().ticket?.documents).toMatchObject([{ file: 'page', form: { fit: 'page' } }]);
});

test('an answer that comes although nobody asks for it any more changes nothing', () => {
  const { change, dispatch, now } = bench();
  change({ fit: 'width' });
  change({});
  dispatch(BenchActions.laidOut({ file: 'f', form: { fit: 'width' }, laid: book('g', { fit: 'width' }) }));
  expect(now().ticket?.documents).toMatchObject([{ file: 'f', form: {} }]);
});

test('where the server is away it is asked again, and nothing is told until it has said no', () => {
  const { asked, change, now } = bench();
  change({ fit: 'width' });
  asked[0]!.answer.error(away);
  expect([asked.length, now().message]).toEqual([1, null]);
  jest.advanceTimersByTime(1_000);
  asked[1]!.answer.next(record('g', { fit: 'width' }));
  expect(now().ticket?.documents).toMatchObject([{ file: 'g' }]);
});

test('what cannot be laid out so is told, and what was seen before stands until something else is asked', () => {
  const { asked, change, now } = bench();
  change({ sheets: ['Rates'] });
  const body = { code: 'file-unusable', detail: 'It cannot be laid out so: it has no sheet “Rates”.' };
  asked[0]!.answer.error(new HttpErrorResponse({ status: 422, error: body }));
  expect(now().message).toBe('budget.xlsx: It cannot be laid out so: it has no sheet “Rates”.');
  expect([now().documents[0]?.id, asked.length]).toEqual(['f', 1]);
  change({});
  expect([now().message, now().ticket?.documents[0]?.file]).toEqual([null, 'f']);
});

test('of two documents one that cannot be laid out does not keep the other from it', () => {
  const two = { ...ticket, documents: ['f', 'g'].map((file) => ({ ...ticket.documents[0]!, file })) };
  const { asked, dispatch, now } = bench([book('f'), book('g')], two);
  const wish = { fit: 'width' } as const;
  dispatch(
    BenchActions.ticketChanged({ ticket: { ...two, documents: two.documents.map((one) => ({ ...one, form: wish })) } }),
  );
  asked[0]!.answer.error(new HttpErrorResponse({ status: 422, error: { code: 'file-unusable', detail: 'No.' } }));
  asked[1]!.answer.next(record('h', wish));
  expect(now().ticket?.documents.map(({ file }) => file)).toEqual(['f', 'h']);
});

test('a set-up that asks for another form is followed as soon as the job is open', () => {
  const { asked } = bench([book('f')], asking({ orientation: 'landscape' }));
  expect(asked.map(({ form }) => form)).toEqual([{ orientation: 'landscape' }]);
});

describe('what takes long begins with its first pages', () => {
  const unfinished = (trouble: string | null) => ({ ...book('f').laid!, unfinished: { trouble } });
  const begun = { ...book('f'), laid: unfinished(null), sha256: 'first' };
  const whole = { ...record('f', {}), pages: [PAGE, PAGE, PAGE], sha256: 'whole' };

  /** A Bench with a beginning on it, and news and answers that a test gives. */
  function following() {
    const { dispatch, now, store } = bench([begun]);
    const [told, opened] = [new Subject<NewsRecord>(), new Subject<void>()];
    const news = {
      of: (topic: string) => told.pipe(filter((one) => one.topic === topic)),
      asking: (...words: Observable<unknown>[]) => merge(of(null), opened, ...words),
    } as unknown as News;
    const answers: Subject<FileRecord>[] = [];
    const api = { file: () => answers[answers.push(new Subject<FileRecord>()) - 1] } as unknown as Api;
    followLayingOut(store, api, news).subscribe(dispatch);
    const answer = (at: number, file: FileRecord): void => {
      answers[at]!.next(file);
      answers[at]!.complete();
    };
    return { answers, answer, now, tell: (id: string) => told.next({ topic: 'file', id }) };
  }

  test('the whole takes their place once it is told of, and the same file is planned anew', () => {
    const { answer, answers, now, tell } = following();
    answer(0, { ...begun, bytes: 9 });
    expect(now().documents).toEqual([begun]);
    tell('another');
    expect(answers).toHaveLength(1);
    tell('first');
    answer(1, whole);
    expect([now().documents[0]?.pages.length, now().ticket]).toEqual([3, ticket]);
    tell('first');
    expect(answers).toHaveLength(2);
  });

  test('how far it is is shown as it comes, and is gone once the whole is there', () => {
    const { answer, now, tell } = following();
    answer(0, { ...begun, bytes: 9 });
    tell('first');
    const far = { ...begun, bytes: 9, laid: { ...begun.laid, unfinished: { trouble: null, done: 400, of: 4_168 } } };
    answer(1, far);
    expect(now().documents[0]?.laid?.unfinished).toEqual({ trouble: null, done: 400, of: 4_168 });
    // Told twice while the answer is still on its way: it is asked once more after that.
    tell('first');
    tell('first');
    answer(2, { ...far, laid: { ...begun.laid, unfinished: { trouble: null, done: 800, of: 4_168 } } });
    expect(now().documents[0]?.laid?.unfinished?.done).toBe(800);
    answer(3, whole);
    expect([now().documents[0]?.pages.length, now().documents[0]?.laid?.unfinished]).toEqual([3, undefined]);
  });

  test('where the rest never comes, why is there', () => {
    const { answer, now } = following();
    const trouble = 'This file takes too much time and was given up.';
    answer(0, { ...begun, bytes: 9, laid: unfinished(trouble) });
    expect(now().documents[0]?.laid?.unfinished).toEqual({ trouble });
  });
});
