import { HttpErrorResponse } from '@angular/common/http';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { keepAsking } from './keep-asking';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Questions whose answers come when a test gives them. */
function begin() {
  const when = new Subject<void>();
  const questions: Subject<string>[] = [];
  const ask = (): Observable<string> => {
    const question = new Subject<string>();
    questions.push(question);
    return question;
  };
  const [heard, failed]: [string[], unknown[]] = [[], []];
  const asking = keepAsking(when, ask, (error) => failed.push(error)).subscribe((answer) => heard.push(answer));
  const answer = (at: number, text: string): void => {
    questions[at]!.next(text);
    questions[at]!.complete();
  };
  return { when, questions, heard, failed, answer, asking };
}

test('however much comes while an answer is on its way, it is asked for once more, after it', () => {
  const { when, questions, heard, answer } = begin();
  for (let word = 0; word < 5; word += 1) when.next();
  expect(questions).toHaveLength(1);
  answer(0, 'then');
  expect(questions).toHaveLength(2);
  answer(1, 'now');
  expect([questions.length, heard]).toEqual([2, ['then', 'now']]);
});

test('a question that the server did not take is asked again, and said to have failed', () => {
  const { when, questions, heard, failed, answer } = begin();
  when.next();
  const away = new HttpErrorResponse({ status: 0 });
  questions[0]!.error(away);
  expect([failed, questions.length]).toEqual([[away], 1]);
  jest.advanceTimersByTime(1_000);
  answer(1, 'at last');
  expect(heard).toEqual(['at last']);
});

test('one that is refused is not, but the next word is asked after', () => {
  const { when, questions, failed, heard, answer } = begin();
  when.next();
  questions[0]!.error(new HttpErrorResponse({ status: 404 }));
  jest.advanceTimersByTime(60_000);
  expect([failed.length, questions.length]).toEqual([1, 1]);
  when.next();
  answer(1, 'there');
  expect(heard).toEqual(['there']);
});

test('an answer that comes at once is no trouble, nor one that fails at once', () => {
  const when = new Subject<void>();
  const heard: string[] = [];
  let isAway = true;
  const ask = (): Observable<string> => (isAway ? throwError(() => new HttpErrorResponse({ status: 503 })) : of('now'));
  keepAsking(when, ask).subscribe((answer) => heard.push(answer));
  when.next();
  isAway = false;
  jest.advanceTimersByTime(1_000);
  when.next();
  expect(heard).toEqual(['now', 'now']);
});

test('whoever leaves hears nothing more, and nothing more is asked', () => {
  const { when, questions, heard, answer, asking } = begin();
  when.next();
  when.next();
  asking.unsubscribe();
  answer(0, 'late');
  questions[0]!.error(new HttpErrorResponse({ status: 0 }));
  jest.advanceTimersByTime(60_000);
  expect([heard, questions.length]).toEqual([[], 1]);
});
