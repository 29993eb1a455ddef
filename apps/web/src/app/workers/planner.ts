import { Injectable } from '@angular/core';
import type { DocumentFacts, Plan, Printer, Ticket } from '@foglio/core';
import { Observable } from 'rxjs';
import { unpackHolder } from './packed';
import type { Answers, PlanReply, PlanRequest, Question } from './plan-messages';
import { spawnPlanWorker } from './spawn';

const answerOf = ({ answer, packed }: PlanReply): PlanReply['answer'] =>
  packed ? ({ ...answer, plan: unpackHolder<Plan>(packed) } as PlanReply['answer']) : answer;

/** Planning away from the screen's thread, so that typing never waits for it. */
@Injectable({ providedIn: 'root' })
export class Planner {
  private readonly worker = spawnPlanWorker();
  private facts: readonly DocumentFacts[] | null = null;
  private count = 0;

  /** One answer; unsubscribed before it comes, it is dropped. */
  ask<Kind extends Question['kind']>(
    question: Extract<Question, { kind: Kind }>,
    ticket: Ticket,
    documents: readonly DocumentFacts[],
    printer: Printer,
  ): Observable<Answers[Kind]> {
    return new Observable((subscriber) => {
      const number = ++this.count;
      const onMessage = ({ data }: MessageEvent<PlanReply>): void => {
        if (data.number !== number) return;
        subscriber.next(answerOf(data) as Answers[Kind]);
        subscriber.complete();
      };
      const onError = (event: ErrorEvent): void => subscriber.error(new Error(event.message));
      this.worker.addEventListener('message', onMessage);
      this.worker.addEventListener('error', onError);
      if (this.facts !== documents) this.post({ kind: 'facts', documents });
      this.facts = documents;
      this.post({ kind: 'question', number, ticket, printer, question });
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
