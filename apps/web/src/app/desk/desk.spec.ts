import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { provideRouter, Router } from '@angular/router';
import type { FileRecord, JobBrief, JobList, JobRecord, SetupRecord } from '@foglio/api';
import type { Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { delay, EMPTY, map, of, throwError, timer } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { Uploader } from '../documents/uploader';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { Desk } from './desk';
import { WHAT_COMES_NEXT } from './what-comes-next';

const LATE = 3_000;
const NONE: JobList = { jobs: [], total: 0 };
const late = <T>(answer: T) => of(answer).pipe(delay(LATE));

const printer = aPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const file: FileRecord = { ...aDocument([{ width: 595.276, height: 841.89 }], { read: 1 }), bytes: 9 };

const house = {
  id: 'h',
  name: 'House',
  starts: 'house',
  ticket: readTicket({ version: 1, documents: [{ file: '*' }], tray: 'tray-1' }),
} as SetupRecord;

const aJob = (title: string): JobBrief =>
  ({
    id: title,
    ticket: { ...house.ticket, title },
    printerId: 'p',
    names: [],
    lastSentAt: null,
    came: null,
  }) as unknown as JobBrief;

const raise = (error: Error): never => {
  throw error;
};

/** The Desk with a file dropped on it, every answer of the server three seconds late. */
function begin({
  refused = [] as string[],
  loadNext = () => Promise.resolve<unknown>(null),
  jobs = (_: { search?: string; from?: number }) => late(NONE),
  setups = () => late([house]),
} = {}) {
  const api = {
    setups,
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

beforeEach(() => {
  jest.useFakeTimers();
  // There is nothing to scroll without a window.
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(() => jest.useRealTimers());

test('a file that is dropped opens as a job, though every answer comes late', async () => {
  const { navigated, told } = begin();
  await jest.advanceTimersByTimeAsync(20_000);
  expect([navigated.mock.calls, told.mock.calls]).toEqual([[[['/jobs', 'j']]], []]);
});

test('set-ups that cannot be had while the file is on its way are asked for again', async () => {
  const asked: number[] = [];
  // The list of the Desk asks too.
  const setups = () => (asked.push(Date.now()) <= 2 ? throwError(() => new Error('away')) : late([house]));
  const { navigated, told } = begin({ setups });
  await jest.advanceTimersByTimeAsync(20_000);
  expect([navigated.mock.calls, told.mock.calls]).toEqual([[[['/jobs', 'j']]], []]);
  expect(asked.length).toBeGreaterThan(2);
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
  const { fixture } = begin({ jobs: () => timer(LATE).pipe(map(() => ((asked += 1) < 3 ? raise(away) : NONE))) });
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

test('a long list comes page by page, and is searched; an answer that is late does not stand for what is asked now', async () => {
  const asked: [string, number][] = [];
  const { fixture } = begin({
    jobs: ({ search = '', from = 0 }) => {
      asked.push([search, from]);
      // What is asked first is answered last.
      return of({ jobs: [aJob(`${search || 'all'} from ${from}`)], total: 60 }).pipe(delay(LATE / asked.length));
    },
  });
  const element = fixture.nativeElement as HTMLElement;
  const show = async (ms = LATE): Promise<string[]> => {
    await jest.advanceTimersByTimeAsync(ms);
    fixture.detectChanges();
    return [...element.querySelectorAll('.title')].map((title) => title.textContent ?? '');
  };
  fixture.detectChanges();
  expect(await show()).toEqual(['all from 0']);
  expect(element.querySelector('mat-paginator')?.textContent).toContain('Jobs 1 to 25 of 60');
  const press = (label: string): void => element.querySelector<HTMLElement>(`[aria-label="${label}"]`)!.click();
  press('Next page');
  expect(await show()).toEqual(['all from 25']);
  const field = element.querySelector<HTMLInputElement>('input[type=search]')!;
  for (const text of ['a', 'al', 'alb ']) {
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await show(100);
  }
  // A page is turned before the search was answered; what still stands there is told to be old.
  expect(await show(250)).toEqual(['all from 25']);
  const said = () => element.querySelector('[role=status].behind')?.textContent?.trim();
  expect(said()).toBe('Looking for these jobs');
  press('Next page');
  expect(await show(2 * LATE)).toEqual(['alb from 25']);
  expect(said()).toBeUndefined();
  expect(asked).toEqual([
    ['', 0],
    ['', 25],
    ['alb', 0],
    ['alb', 25],
  ]);
});

test('a search that fails is told, what was there stays, and it is answered by itself once the server is back', async () => {
  let isAway = false;
  const away = new HttpErrorResponse({ status: 503, error: { detail: 'Try again in a moment.' } });
  const { fixture } = begin({
    jobs: ({ search = '' }) =>
      timer(LATE).pipe(map(() => (isAway ? raise(away) : { jobs: [aJob(search || 'all')], total: 9 }))),
  });
  const element = fixture.nativeElement as HTMLElement;
  const after = async (ms: number): Promise<(string | undefined)[]> => {
    await jest.advanceTimersByTimeAsync(ms);
    fixture.detectChanges();
    return ['.title', '.behind'].map((one) => element.querySelector(one)?.textContent?.trim());
  };
  fixture.detectChanges();
  expect(await after(LATE)).toEqual(['all', undefined]);
  isAway = true;
  const field = element.querySelector<HTMLInputElement>('input[type=search]')!;
  field.value = 'contract';
  field.dispatchEvent(new Event('input'));
  expect(await after(LATE + 300)).toEqual(['all', 'The list cannot be shown now. Try again in a moment.']);
  isAway = false;
  expect(await after(3 * LATE)).toEqual(['contract', undefined]);
});

test('where the last jobs of a page were removed, the page before it is shown', async () => {
  let total = 26;
  const { fixture } = begin({
    jobs: ({ from = 0 }) => late({ jobs: from < total ? [aJob('left')] : [], total }),
  });
  const element = fixture.nativeElement as HTMLElement;
  const wait = async (): Promise<void> => {
    await jest.advanceTimersByTimeAsync(3 * LATE);
    fixture.detectChanges();
  };
  fixture.detectChanges();
  await wait();
  total = 25;
  element.querySelector<HTMLElement>('[aria-label="Next page"]')!.click();
  await wait();
  expect(element.querySelectorAll('.title')).toHaveLength(1);
});
