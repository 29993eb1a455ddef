import { TestBed } from '@angular/core/testing';
import { profileForTicket, type Plan, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { packHolder } from './packed';
import type { PlanAnswer, PlanReply } from './plan-messages';
import { Planner } from './planner';

const DOCUMENTS = [{ name: 'a.pdf', pages: [{ width: 595, height: 842 }] }];
const TICKET: Ticket = readTicket({ version: 1, documents: [{ file: 'a' }] });

/** As the worker's answers come: late, and in any order. */
function asked() {
  const planner = TestBed.inject(Planner);
  const { worker } = planner as unknown as { readonly worker: EventTarget };
  const heard: PlanAnswer[] = [];
  const ask = () =>
    planner
      .ask<'plan'>({ kind: 'plan' }, TICKET, DOCUMENTS, profileForTicket(TICKET, DOCUMENTS))
      .subscribe((answer) => heard.push(answer));
  const answer = (number: number, sheets: number): void => {
    const plan = { version: 1, sheets: Array.from({ length: sheets }, (_, index) => ({ index })) } as unknown as Plan;
    const told = { milliseconds: 1, plan: null, moment: '2026-09-01T14:05', trouble: null } as unknown as PlanAnswer;
    const data: PlanReply = { number, answer: told, packed: packHolder(plan, 'sheets') };
    worker.dispatchEvent(new MessageEvent('message', { data }));
  };
  return { ask, answer, heard };
}

test('a plan is whole again, and an answer to another question is not taken for it', () => {
  const { ask, answer, heard } = asked();
  ask();
  ask();
  answer(2, 40);
  expect(heard.map(({ plan }) => plan?.sheets.length)).toEqual([40]);
  answer(1, 3);
  expect(heard.map(({ plan }) => plan?.sheets.length)).toEqual([40, 3]);
  expect(heard[0]).toMatchObject({ moment: '2026-09-01T14:05', plan: { version: 1 } });
  answer(1, 5);
  expect(heard).toHaveLength(2);
});

test('an answer that comes after nobody waits for it any more is dropped', () => {
  const { ask, answer, heard } = asked();
  ask().unsubscribe();
  answer(1, 3);
  expect(heard).toEqual([]);
});
