import {
  compare,
  fewestSheets,
  momentOf,
  planRow,
  TicketError,
  tryOutcome,
  type DocumentFacts,
  type Printer,
  type Sealed,
  type Ticket,
} from '@foglio/core';
import { planAt } from '@foglio/sentence';
import { buffersOf, packHolder } from './packed';
import type { Answers, PlanAnswer, PlanReply, PlanRequest, Question } from './plan-messages';

let documents: readonly DocumentFacts[] = [];

addEventListener('message', ({ data }: MessageEvent<PlanRequest>) => {
  if (data.kind === 'facts') {
    documents = data.documents;
    return;
  }
  const { number, ticket, printer, question } = data;
  const made = answer(question, ticket, printer);
  const plan = made !== null && 'plan' in made ? made.plan : null;
  if (question.kind !== 'plan' || plan === null) {
    postMessage({ number, answer: made, packed: null } satisfies PlanReply);
    return;
  }
  const packed = packHolder(plan, 'sheets');
  const reply: PlanReply = { number, answer: { ...made, plan: null } as PlanAnswer, packed };
  postMessage(reply, { transfer: buffersOf(packed) });
});

function answer(question: Question, ticket: Ticket, printer: Printer): Answers[Question['kind']] {
  switch (question.kind) {
    case 'plan':
      return planned(ticket, printer);
    case 'outcome':
      return tryOutcome({ ...ticket, ...question.patch }, documents, printer);
    case 'ways':
      return orNull(() => compare(ticket, documents, printer));
    case 'row':
      return planRow(ticket, documents as Sealed['documents'], printer, question.address);
    case 'fewest':
      return orNull(() => fewestSheets(ticket, documents, printer, question));
  }
}

function planned(ticket: Ticket, printer: Printer): PlanAnswer {
  const start = performance.now();
  try {
    const moment = momentOf(new Date());
    const made = planAt(ticket, documents, printer, moment);
    return { milliseconds: performance.now() - start, plan: made, moment, trouble: null };
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    const { place, problem, repair, position, length, replacement } = error;
    const trouble = { place, problem, repair, position, length, replacement };
    return { milliseconds: performance.now() - start, plan: null, trouble };
  }
}

function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof TicketError) return null;
    throw error;
  }
}
