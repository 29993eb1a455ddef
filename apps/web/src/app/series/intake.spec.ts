import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { FileRecord, SeriesFile, SeriesRecord } from '@foglio/api';
import { readTicket } from '@foglio/core/validate';
import { defer, of, throwError, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { Uploader } from '../documents/uploader';
import { SeriesIntake } from './intake';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const away = new HttpErrorResponse({ status: 0 });
const names = (count: number): string[] => Array.from({ length: count }, (_, at) => `${at + 1}.pdf`);
const filesOf = (all: readonly string[]): File[] => all.map((name) => ({ name }) as File);

/** @param fails how an upload, by its name and its number from 1, or an addition, by its number, goes wrong */
function begin(fails: {
  readonly upload?: (name: string, time: number) => HttpErrorResponse | null;
  readonly add?: (time: number) => 'lost' | 'answer lost' | null;
}) {
  const rows: SeriesFile[] = [];
  const times = new Map<string, number>();
  let adds = 0;
  const api = {
    upload: ({ name }: File) =>
      defer((): Observable<FileRecord> => {
        const time = (times.get(name) ?? 0) + 1;
        times.set(name, time);
        const error = fails.upload?.(name, time) ?? null;
        return error ? throwError(() => error) : of({ id: `${name} ${time}` } as FileRecord);
      }),
    addSeriesFiles: (_id: string, files: readonly SeriesFile[]) =>
      defer(() => {
        const how = fails.add?.((adds += 1)) ?? null;
        if (how !== 'lost') rows.push(...files);
        return how === null ? of({}) : throwError(() => away);
      }),
    series: () => of({ rows: rows.map(({ name, file, trouble = null }) => ({ name, file, trouble })) } as SeriesRecord),
  };
  /** What comes by mail has a plan with it, and something that cannot be taken. */
  const attachedTo = ({ id }: FileRecord) =>
    Promise.resolve(
      id.startsWith('mail')
        ? { taken: [{ id: 'attached', name: 'plan.pdf' } as FileRecord], refused: ['b.pdf: It is locked.'] }
        : { taken: [], refused: [] },
    );
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: Uploader, useValue: { attachedTo } },
    ],
  });
  return { intake: TestBed.inject(SeriesIntake), rows, times };
}

const SERIES = { id: 's', setup: readTicket({ version: 1, documents: [{ file: '*' }] }) };

const takeIn = async (intake: SeriesIntake, all: readonly string[]): Promise<void> => {
  const taking = intake.takeIn(SERIES, filesOf(all));
  await jest.advanceTimersByTimeAsync(60_000);
  await taking;
};

test('a server that is away for a while loses nothing, and nothing comes twice', async () => {
  const { intake, rows, times } = begin({
    upload: (name, time) => (name === '7.pdf' && time < 4 ? away : null),
    add: (time) => (time === 1 ? 'answer lost' : time === 3 ? 'lost' : null),
  });
  await takeIn(intake, names(45));
  expect(rows.map(({ name }) => name)).toEqual(names(45));
  expect([times.get('7.pdf'), times.get('8.pdf'), intake.message(), intake.progress()]).toEqual([4, 1, null, null]);
});

test('one that stays away is said, with the names of what is not in; what was taken in before is', async () => {
  const { intake, rows } = begin({ upload: (name) => (Number.parseInt(name) > 22 ? away : null) });
  await takeIn(intake, names(30));
  expect(rows.map(({ name }) => name)).toEqual(names(22));
  expect(intake.message()).toBe(
    'Not taken in, since Foglio’s server did not answer: 23.pdf, 24.pdf, 25.pdf, 26.pdf, 27.pdf and 3 more. Drop them here again.',
  );
});

test('a file that is refused stands in the series with the reason, and keeps no other from it', async () => {
  const refusals: Record<string, HttpErrorResponse> = {
    '2.pdf': new HttpErrorResponse({ status: 413, error: { detail: 'Send less at once.' } }),
    '3.pdf': new HttpErrorResponse({ status: 422, error: { detail: 'It is locked.', trouble: 'locked' } }),
  };
  const { intake, rows } = begin({ upload: (name) => refusals[name] ?? null });
  await takeIn(intake, names(4));
  expect(rows.map(({ name, trouble }) => `${name} ${trouble ?? 'in'}`)).toEqual([
    '1.pdf in',
    '2.pdf Send less at once.',
    '3.pdf It is locked. Drop it here by itself to give its password.',
    '4.pdf in',
  ]);
});

test('what is attached to a mail are files of their own behind it', async () => {
  const { intake, rows } = begin({});
  await takeIn(intake, ['1.pdf', 'mail.eml', '2.pdf']);
  expect(rows).toEqual([
    { name: '1.pdf', file: '1.pdf 1' },
    { name: 'mail.eml', file: 'mail.eml 1' },
    { name: 'mail.eml: plan.pdf', file: 'attached' },
    { name: 'mail.eml', trouble: 'b.pdf: It is locked.' },
    { name: '2.pdf', file: '2.pdf 1' },
  ]);
});
