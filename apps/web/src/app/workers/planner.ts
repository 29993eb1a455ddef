import { Injectable } from '@angular/core';
import type { DocumentFacts, Printer, Ticket } from '@foglio/core';
import { Observable } from 'rxjs';
import type { PlanAnswer, PlanRequest } from './plan-messages';
import { spawnPlanWorker } from './spawn';

/** Planning away from the screen's thread, so that typing never waits for it. */
@Injectable({ providedIn: 'root' })
export class Planner {
  private readonly worker = spawnPlanWorker();
  private facts: readonly DocumentFacts[] | null = null;
  private count = 0;

  /** One plan; unsubscribed before it comes, its answer is dropped. */
  plan(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): Observable<PlanAnswer> {
    return new Observable((subscriber) => {
      const number = ++this.count;
      const onMessage = ({ data }: MessageEvent<PlanAnswer>): void => {
        if (data.number !== number) return;
        subscriber.next(data);
        subscriber.complete();
      };
      const onError = (event: ErrorEvent): void => subscriber.error(new Error(event.message));
      this.worker.addEventListener('message', onMessage);
      this.worker.addEventListener('error', onError);
      if (this.facts !== documents) this.post({ kind: 'facts', documents });
      this.facts = documents;
      this.post({ kind: 'plan', number, ticket, printer });
      return () => {
        this.worker.removeEventListener('message', onMessage);
        this.worker.removeEventListener('error', onError);
      };
    });
  }

  private post(request: PlanRequest): void {
    this.worker.postMessage(request);
  }
}
