import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { readTicket } from '@foglio/core/validate';
import { Subject } from 'rxjs';
import { Api } from '../api/api';
import type { Changed, ChangeNews } from './change-line';
import { Changes } from './changes';

const ticket = (copies: number) => readTicket({ version: 1, documents: [{ file: 'f' }], copies });
const job: Changed = { kind: 'job', id: 'j' };
const DUE = 250;

/** A server whose answers come when the test gives them. */
class Server {
  readonly asked: unknown[][] = [];
  private readonly answers: Subject<unknown>[] = [];

  private readonly ask = (...call: unknown[]): Subject<unknown> => {
    this.asked.push(call);
    const answer = new Subject<unknown>();
    this.answers.push(answer);
    return answer;
  };
  readonly saveTicket = (id: string, { copies }: { copies: number }, revision: number) =>
    this.ask('ticket', id, copies, revision);
  readonly changePrinter = (id: string, printer: string, revision: number) =>
    this.ask('printer', id, printer, revision);
  readonly changeSetup = (id: string, change: object) => this.ask('set-up', id, change);

  readonly job = (id: string) => this.ask('job', id);

  /** Answers the oldest question that is open. */
  give(revision: number, stored?: object): void {
    const answer = this.answers.shift()!;
    answer.next({ id: 'j', revision, ...(stored ? { ticket: stored, printerId: 'upper-office' } : {}) });
    answer.complete();
  }

  refuse(status: number, code = ''): void {
    this.answers.shift()!.error(new HttpErrorResponse({ status, error: { code, detail: `${status}.` } }));
  }
}

function begin(revision = 1) {
  const server = new Server();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: server }] });
  const changes = TestBed.inject(Changes);
  const news: ChangeNews[] = [];
  changes.begin(job, revision, {});
  changes.news(job).subscribe((one) => news.push(one));
  return { server, changes, news };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('one request is on its way at a time; the latest goes next, from the revision that the one before gave', () => {
  const { server, changes, news } = begin();
  changes.put(job, { ticket: ticket(2) });
  changes.put(job, { ticket: ticket(3) });
  jest.advanceTimersByTime(DUE);
  for (const copies of [4, 5, 6]) changes.put(job, { ticket: ticket(copies) });
  jest.advanceTimersByTime(60_000);
  expect(server.asked).toEqual([['ticket', 'j', 3, 1]]);
  server.give(2);
  server.give(3);
  expect(server.asked.slice(1)).toEqual([['ticket', 'j', 6, 2]]);
  expect(news.map((one) => one.kind === 'saved' && [one.change.ticket?.copies, one.revision])).toEqual([
    [3, 2],
    [6, 3],
  ]);
});

test('a ticket goes before the printer it was made for, each from the revision of the other', () => {
  const { server, changes, news } = begin(7);
  changes.put(job, { printerId: 'library' });
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.give(8);
  server.give(9);
  expect(server.asked).toEqual([
    ['ticket', 'j', 2, 7],
    ['printer', 'j', 'library', 8],
  ]);
  expect(news).toMatchObject([{ kind: 'saved', change: { printerId: 'library' }, revision: 9 }]);
});

test('what is taken back before it was sent is not sent; nor is what the server has', () => {
  const { server, changes, news } = begin();
  const [one, two] = [ticket(1), ticket(2)];
  changes.begin(job, 1, { ticket: one, printerId: 'upper-office' });
  changes.put(job, { ticket: two, printerId: 'upper-office' });
  changes.put(job, { ticket: one, printerId: 'upper-office' });
  jest.advanceTimersByTime(DUE);
  expect(server.asked).toEqual([]);
  expect(news).toMatchObject([{ kind: 'saved', change: { ticket: one }, revision: 1 }]);
  changes.put(job, { ticket: two, printerId: 'library' });
  jest.advanceTimersByTime(DUE);
  server.give(2);
  server.give(3);
  changes.put(job, { ticket: one, printerId: 'library' });
  jest.advanceTimersByTime(DUE);
  expect(server.asked).toEqual([
    ['ticket', 'j', 2, 1],
    ['printer', 'j', 'library', 2],
    ['ticket', 'j', 1, 3],
  ]);
});

test('whoever waits for all to be there hurries it, and hears of it once it is', () => {
  const { server, changes } = begin();
  const heard: string[] = [];
  changes.put(job, { ticket: ticket(2) });
  changes.settled(job).subscribe(() => heard.push('settled'));
  expect(server.asked).toHaveLength(1);
  changes.put(job, { ticket: ticket(3) });
  server.give(2);
  expect(heard).toEqual([]);
  server.give(3);
  expect(heard).toEqual(['settled']);
  changes.settled(job).subscribe(() => heard.push('nothing to wait for'));
  expect(heard).toHaveLength(2);
});

test('what the server could not take just now is kept, and tried again with growing waits', () => {
  const { server, changes, news } = begin();
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.refuse(0);
  expect(news).toMatchObject([{ kind: 'failed', conflict: false }]);
  jest.advanceTimersByTime(2_000);
  server.refuse(503);
  jest.advanceTimersByTime(3_999);
  expect(server.asked).toHaveLength(2);
  jest.advanceTimersByTime(1);
  server.give(2);
  expect(server.asked).toEqual(Array.from({ length: 3 }, () => ['ticket', 'j', 2, 1]));
  expect(news.at(-1)).toMatchObject({ kind: 'saved', revision: 2 });
});

test('an answer that was lost is no other window: what was changed since goes on from how the job stands', () => {
  const { server, changes, news } = begin();
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.refuse(0);
  changes.put(job, { ticket: ticket(3) });
  jest.advanceTimersByTime(DUE);
  server.refuse(409, 'job-changed');
  // It is this window's own change that stands there, its fields in the database's order.
  server.give(2, Object.fromEntries(Object.entries(ticket(2)).toReversed()));
  server.give(3);
  expect(server.asked).toEqual([
    ['ticket', 'j', 2, 1],
    ['ticket', 'j', 3, 1],
    ['job', 'j'],
    ['ticket', 'j', 3, 2],
  ]);
  expect(news.map(({ kind }) => kind)).toEqual(['failed', 'saved']);
});

test('where it is another window’s change that stands there, that is said', () => {
  const { server, changes, news } = begin();
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.refuse(0);
  jest.advanceTimersByTime(2_000);
  server.refuse(409, 'job-changed');
  server.give(2, ticket(9));
  expect(news.at(-1)).toMatchObject({ kind: 'failed', conflict: true });
});

test('loading a job whose change could not be saved says so, and keeps the change', () => {
  const { server, changes } = begin();
  const heard: unknown[] = [];
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.refuse(0);
  changes.settled(job).subscribe({ next: () => heard.push('settled'), error: () => heard.push('not saved') });
  server.refuse(0);
  expect(heard).toEqual(['not saved']);
  changes.settled(job).subscribe(() => heard.push('settled'));
  server.give(2);
  expect(heard).toEqual(['not saved', 'settled']);
});

test('what another window overtook is not tried again: how the job stands has to be looked at', () => {
  const { server, changes, news } = begin();
  changes.put(job, { ticket: ticket(2) });
  jest.advanceTimersByTime(DUE);
  server.refuse(409, 'job-changed');
  jest.advanceTimersByTime(600_000);
  expect(server.asked).toHaveLength(1);
  expect(news).toMatchObject([{ kind: 'failed', conflict: true }]);
  changes.begin(job, 5, {});
  changes.put(job, { ticket: ticket(3) });
  jest.advanceTimersByTime(DUE);
  expect(server.asked.at(-1)).toEqual(['ticket', 'j', 3, 5]);
});

test('jobs do not wait for each other, nor for a set-up', () => {
  const { server, changes } = begin();
  changes.put(job, { ticket: ticket(2) });
  changes.put({ kind: 'job', id: 'k' }, { ticket: ticket(3) });
  changes.put({ kind: 'set-up', id: 'j' }, { printerId: 'library' });
  jest.advanceTimersByTime(DUE);
  expect(server.asked).toEqual([
    ['ticket', 'j', 2, 1],
    ['ticket', 'k', 3, 0],
    ['set-up', 'j', { printerId: 'library', revision: 0 }],
  ]);
});

test('a set-up’s name goes the same way, at once, and whoever gives it hears that it could not be saved', () => {
  const { server, changes } = begin();
  const heard: unknown[] = [];
  const setup: Changed = { kind: 'set-up', id: 's' };
  changes.begin(setup, 3, {});
  const named = (name: string) =>
    changes.make(setup, { name }).subscribe({
      next: () => heard.push('saved'),
      error: (error: HttpErrorResponse) => heard.push(error.status),
    });
  named('Letters');
  server.give(4);
  named('Post');
  server.refuse(409, 'name-taken');
  named('Mail');
  server.give(5);
  expect(server.asked).toEqual([
    ['set-up', 's', { name: 'Letters', revision: 3 }],
    ['set-up', 's', { name: 'Post', revision: 4 }],
    ['set-up', 's', { name: 'Mail', revision: 4 }],
  ]);
  expect(heard).toEqual(['saved', 409, 'saved']);
});

test('a page that is left sends what waits; where it waits behind another change, the person is asked', () => {
  const { server, changes } = begin();
  const leave = (): boolean => window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
  changes.put(job, { ticket: ticket(2) });
  expect(leave()).toBe(true);
  expect(server.asked).toHaveLength(1);
  changes.put(job, { ticket: ticket(3) });
  expect(leave()).toBe(false);
  server.give(2);
  expect(leave()).toBe(true);
  server.give(3);
});
