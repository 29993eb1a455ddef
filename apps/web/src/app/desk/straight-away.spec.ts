import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { FileRecord, JobRecord, SetupRecord } from '@foglio/api';
import { plan, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { delay, of, timer, map } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { Outbox } from '../api/outbox';
import { Reading } from '../documents/reading';
import { Uploader } from '../documents/uploader';
import { Planner } from '../workers/planner';
import { StraightAway } from './straight-away';

const LATE = 3_000;
const late = <T>(answer: T) => of(answer).pipe(delay(LATE));
const lately = <T>(answer: T): Promise<T> => new Promise((resolve) => setTimeout(() => resolve(answer), LATE));

const printer = aPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const file: FileRecord = { ...aDocument([{ width: 595.276, height: 841.89 }], { read: 1 }), bytes: 9 };
const setup = { ticket: readTicket({ version: 1, documents: [{ file: '*' }], tray: 'tray-1' }) } as SetupRecord;

/** The place on the Desk, every answer of the server three seconds late. @param refused of what is attached */
function begin({ refused = [] as string[] } = {}) {
  let sent = 0;
  const api = {
    createJob: (ticket: Ticket) => late({ id: 'j', ticket, revision: 1 } as JobRecord),
    printer: () => late(printer),
  };
  const ask = (_: object, ticket: Ticket) =>
    late({ plan: plan(ticket, [file], printer.profile), trouble: null, moment: '2026-09-01T10:00' });
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: Api, useValue: api },
      { provide: Uploader, useValue: { upload: () => lately(file), attachedTo: () => lately({ taken: [], refused }) } },
      { provide: Reading, useValue: { follow: (one: FileRecord) => timer(LATE).pipe(map(() => one)) } },
      { provide: Planner, useValue: { ask } },
      { provide: Outbox, useValue: { send: () => ((sent += 1), late({ id: 's' })) } },
    ],
  });
  const fixture = TestBed.createComponent(StraightAway);
  fixture.componentRef.setInput('setup', setup);
  fixture.componentRef.setInput('printer', printer);
  fixture.detectChanges();
  const navigated = jest.spyOn(TestBed.inject(Router), 'navigate');
  const place = fixture.componentInstance as unknown as {
    take: (files: readonly File[]) => Promise<void>;
    stage: () => { kind: string; said?: string };
  };
  void place.take([new File(['x'], 'a.pdf')]);
  return { fixture, place, navigated, sent: () => sent };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('though every answer comes late, it is printed once the seconds to take it back are over', async () => {
  const { place, sent } = begin();
  await jest.advanceTimersByTimeAsync(6 * LATE + 1_000);
  expect([place.stage().kind, sent()]).toEqual(['about-to', 0]);
  await jest.advanceTimersByTimeAsync(5_000 + LATE);
  expect([place.stage().kind, sent()]).toEqual(['sent', 1]);
});

test.each([1, 2, 3, 4, 5, 6])(
  'whoever leaves before answer %i comes sends nothing and is led nowhere',
  async (answer) => {
    const { fixture, navigated, sent } = begin();
    await jest.advanceTimersByTimeAsync(answer * LATE - 500);
    fixture.destroy();
    await jest.advanceTimersByTimeAsync(60_000);
    expect([sent(), navigated.mock.calls]).toEqual([0, []]);
  },
);

test('where something that is attached cannot be taken, nothing is printed of the mail, and it is named', async () => {
  const { place, sent } = begin({ refused: ['b.pdf: It is locked.'] });
  await jest.advanceTimersByTimeAsync(60_000);
  expect([place.stage(), sent()]).toEqual([{ kind: 'refused', said: 'b.pdf: It is locked.' }, 0]);
});
