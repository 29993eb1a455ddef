import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { provideRouter, Router } from '@angular/router';
import type { FileRecord, JobRecord, SetupRecord } from '@foglio/api';
import type { Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { delay, EMPTY, map, of, timer } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { Uploader } from '../documents/uploader';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { Desk } from './desk';
import { WHAT_COMES_NEXT } from './what-comes-next';

const LATE = 3_000;
const late = <T>(answer: T) => of(answer).pipe(delay(LATE));

const printer = aPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const file: FileRecord = { ...aDocument([{ width: 595.276, height: 841.89 }], { read: 1 }), bytes: 9 };

const house = {
  id: 'h',
  name: 'House',
  starts: 'house',
  ticket: readTicket({ version: 1, documents: [{ file: '*' }], tray: 'tray-1' }),
} as SetupRecord;

const raise = (error: Error): never => {
  throw error;
};

/** The Desk with a file dropped on it, every answer of the server three seconds late. */
function begin({
  refused = [] as string[],
  loadNext = () => Promise.resolve<unknown>(null),
  jobs = () => late<never[]>([]),
} = {}) {
  const api = {
    setups: () => late([house]),
    jobs,
    createJob: (ticket: Ticket) => late({ id: 'j', ticket, revision: 1 } as JobRecord),
  };
  const upload = () => new Promise((resolve) => setTimeout(() => resolve(file), LATE));
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: Api, useValue: api },
      { provide: Uploader, useValue: { upload, attachedTo: () => Promise.resolve({ taken: [], refused }) } },
      { provide: News, useValue: { of: () => EMPTY, asking: () => of(null) } },
      { provide: PrintersNow, useValue: { all: () => [printer], keepListed: () => EMPTY } },
      { provide: WHAT_COMES_NEXT, useValue: loadNext },
    ],
  });
  const fixture = TestBed.createComponent(Desk);
  const navigated = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
  const told = jest.spyOn(TestBed.inject(MatSnackBar), 'open').mockReturnValue(null as never);
  void (fixture.componentInstance as unknown as { take: (files: readonly File[]) => Promise<void> }).take([
    new File(['x'], 'a.pdf'),
  ]);
  return { fixture, navigated, told };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a file that is dropped opens as a job, though every answer comes late', async () => {
  const { navigated, told } = begin();
  await jest.advanceTimersByTimeAsync(20_000);
  expect([navigated.mock.calls, told.mock.calls]).toEqual([[[['/jobs', 'j']]], []]);
});

test.each([
  ['what became of the file', [], /^“.+” lies on the Desk now\.$/],
  ['what was refused', ['b.zip: It is damaged.'], /^b\.zip: It is damaged\.$/],
])('whoever left is not led back, and is told %s', async (_, refused, said) => {
  const { fixture, navigated, told } = begin({ refused });
  await jest.advanceTimersByTimeAsync(LATE - 500);
  fixture.destroy();
  await jest.advanceTimersByTimeAsync(20_000);
  expect(navigated).not.toHaveBeenCalled();
  expect(told.mock.calls.map(([text]) => text)).toEqual([expect.stringMatching(said)]);
});

test('the Bench is loaded while a file is on its way, and that it fails is no matter', async () => {
  const loadNext = jest.fn(() => Promise.reject(new Error('not to be had')));
  const { navigated } = begin({ loadNext });
  await jest.advanceTimersByTimeAsync(0);
  expect(loadNext).toHaveBeenCalledTimes(1);
  await jest.advanceTimersByTimeAsync(20_000);
  expect(navigated).toHaveBeenCalled();
});

test('while the jobs cannot be had nothing is said of there being none, and they come by themselves', async () => {
  let asked = 0;
  const away = new HttpErrorResponse({ status: 503, error: { detail: 'Try again in a moment.' } });
  const { fixture } = begin({ jobs: () => timer(LATE).pipe(map(() => ((asked += 1) < 3 ? raise(away) : []))) });
  const said = (): string => {
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).querySelector('section .empty')?.textContent?.trim() ?? '';
  };
  expect(said()).toBe('Looking for your jobs');
  await jest.advanceTimersByTimeAsync(LATE);
  expect(said()).toBe('Your jobs cannot be shown now. Try again in a moment.');
  await jest.advanceTimersByTimeAsync(3 * LATE);
  expect(said()).toContain('No jobs yet');
});
