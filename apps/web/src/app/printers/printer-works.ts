import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { PrinterRecord } from '@foglio/api';
import { catchError, concatMap, of, Subject, type Observable } from 'rxjs';
import { sayError } from '../api/api';
import { PrintersNow } from '../news/printers-now';

/** What is done at printers from one screen or dialog, in the order it was done: the last answer is the one that holds. */
@Injectable()
export class PrinterWorks {
  private readonly printersNow = inject(PrintersNow);
  private readonly works = new Subject<Observable<PrinterRecord>>();
  /** Why what was done last was not taken. */
  readonly message = signal<string | null>(null);
  /** How often something was not taken. */
  readonly refused = signal(0);
  /** How much was done. */
  readonly done = signal(0);

  constructor() {
    this.works.pipe(concatMap(orSaid)).subscribe((answer) => {
      this.message.set(typeof answer === 'string' ? answer : null);
      if (typeof answer === 'string') return this.refused.update((times) => times + 1);
      this.printersNow.see(answer);
      this.done.update((times) => times + 1);
    });
    // Not cut off: what was done before one leaves is done to its end.
    inject(DestroyRef).onDestroy(() => this.works.complete());
  }

  do(work: Observable<PrinterRecord>): void {
    this.works.next(work);
  }
}

/** An answer, or what to say where there is none. */
const orSaid = <T>(answer: Observable<T>): Observable<T | string> =>
  answer.pipe(catchError((error: unknown) => of(sayError(error))));
