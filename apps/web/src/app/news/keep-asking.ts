import { defer, Observable, retry, Subscription, tap, throwError, timer } from 'rxjs';
import { isPassing } from '../api/api';

/** Between two tries where the server does not answer, in milliseconds. */
const AGAIN_MS = 1_000;

/**
 * Asks at each word that something may be new, one question after the other: what comes while an answer is on its way is
 * asked for once more after it, so that the last answer is never older than the last word. A question that failed because
 * the server was away is asked again.
 *
 * @param failed hears why a question had no answer
 */
export function keepAsking<R>(
  when: Observable<unknown>,
  ask: () => Observable<R>,
  failed: (error: unknown) => void = () => undefined,
): Observable<R> {
  return new Observable((subscriber) => {
    const all = new Subscription();
    let isAsking = false;
    let isNew = false;
    const next = (): void => {
      isNew = false;
      isAsking = true;
      const question = defer(ask).pipe(
        tap({ error: failed }),
        retry({ delay: (error: unknown) => (isPassing(error) ? timer(AGAIN_MS) : throwError(() => error)) }),
      );
      const over = (): void => {
        isAsking = false;
        if (isNew) next();
      };
      all.add(question.subscribe({ next: (answer) => subscriber.next(answer), error: over, complete: over }));
    };
    all.add(
      when.subscribe(() => {
        if (isAsking) isNew = true;
        else next();
      }),
    );
    return all;
  });
}
