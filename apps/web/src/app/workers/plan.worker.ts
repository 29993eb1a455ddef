import { plan, TicketError, type DocumentFacts } from '@foglio/core';
import type { PlanAnswer, PlanRequest } from './plan-messages';

let documents: readonly DocumentFacts[] = [];

addEventListener('message', ({ data }: MessageEvent<PlanRequest>) => {
  if (data.kind === 'facts') documents = data.documents;
  else postMessage(answer(data));
});

function answer({ number, ticket, printer }: Extract<PlanRequest, { kind: 'plan' }>): PlanAnswer {
  const start = performance.now();
  try {
    const made = plan(ticket, documents, printer);
    return { number, milliseconds: performance.now() - start, plan: made, trouble: null };
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    const { place, problem, repair, position, length, replacement } = error;
    const trouble = { place, problem, repair, position, length, replacement };
    return { number, milliseconds: performance.now() - start, plan: null, trouble };
  }
}
