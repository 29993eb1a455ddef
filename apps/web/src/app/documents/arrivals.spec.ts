import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { FileRecord, JobDocument } from '@foglio/api';
import type { Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { defer, of, throwError } from 'rxjs';
import { aDocument } from '../../stubs/records';
import { Api } from '../api/api';
import { Changes } from '../state/changes';
import { Arrivals, withFile, type Attendant } from './arrivals';
import { Uploader } from './uploader';

const ticket = readTicket({ version: 1, documents: [{ file: 'f', pages: '1-2' }, { file: 'g' }] });
const files = ['letter.pdf', 'map.pdf'].map((name) => ({ name }) as File);
const to = { jobId: 'j', title: 'Contract', replaced: null };

/** @param outrun how often another window changes the job just before this one */
function begin({ outrun = 0 } = {}) {
  const stored = { ticket, revision: 4 };
  const given = new Map<string, (record: FileRecord | Error) => void>();
  const told: string[] = [];
  const api = {
    job: () => defer(() => of({ ...stored })),
    saveTicket: (_id: string, changed: Ticket, revision: number) =>
      defer(() => {
        if (outrun-- > 0) stored.revision += 1;
        if (revision !== stored.revision)
          return throwError(
            () => new HttpErrorResponse({ status: 409, error: { code: 'job-changed', detail: 'No.' } }),
          );
        Object.assign(stored, { ticket: changed, revision: revision + 1 });
        return of({ id: 'j', revision: stored.revision });
      }),
  };
  const upload = ({ name }: File): Promise<FileRecord> =>
    new Promise((resolve, reject) => {
      given.set(name, (record) => (record instanceof Error ? reject(record) : resolve(record)));
    });
  /** What is attached comes when the test gives it, one name after the other; nothing is attached to what is no mail. */
  const attachedTo = async ({ laid }: FileRecord) => {
    const taken: FileRecord[] = [];
    const refused: string[] = [];
    for (const name of laid?.attachments ?? []) {
      try {
        taken.push(await upload({ name } as File));
      } catch (error) {
        refused.push(`${name}: ${(error as Error).message}`);
      }
    }
    return { taken, refused };
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: Changes, useValue: { settled: () => of(undefined), begin: () => undefined } },
      { provide: Uploader, useValue: { upload, attachedTo } },
      { provide: MatSnackBar, useValue: { open: (said: string) => told.push(said) } },
    ],
  });
  return { arrivals: TestBed.inject(Arrivals), stored, given, told };
}

const record = (name: string): FileRecord => ({ ...aDocument([], { id: name, name }), bytes: 9 });
const filesOf = ({ documents }: Ticket): string[] => documents.map(({ file }) => file);
/** Whatever promises are open go on. */
const tick = () => new Promise((resolve) => setTimeout(resolve));

/** A Bench on the screen that notes what it takes. */
function bench(isHere = true) {
  const took: string[] = [];
  const attendant: Attendant = {
    take: ({ name }: JobDocument) => (isHere && took.push(name), Promise.resolve(isHere)),
    refuse: (message) => took.push(`refused: ${message}`),
    reload: () => took.push('reload'),
  };
  return { took, attendant };
}

test('files come into the job that they were dropped on, in their order, and it is said what is on its way', async () => {
  const { arrivals, given } = begin();
  const { took, attendant } = bench();
  arrivals.attend('j', attendant);
  const brought = arrivals.bring(files, to);
  expect(arrivals.said()).toBe('Taking in letter.pdf for “Contract”, and 1 more');
  await tick();
  given.get('letter.pdf')!(record('letter.pdf'));
  await tick();
  expect(arrivals.underway()).toMatchObject([{ name: 'map.pdf', number: 2, count: 2 }]);
  given.get('map.pdf')!(record('map.pdf'));
  await brought;
  expect(took).toEqual(['letter.pdf', 'map.pdf']);
  expect(arrivals.said()).toBeNull();
});

test('where the job is not on the screen any more, they come into it on the server, and that is told', async () => {
  const { arrivals, given, stored, told } = begin();
  const { attendant } = bench();
  const leave = arrivals.attend('j', attendant);
  const other = bench();
  const brought = arrivals.bring([files[0]!], to);
  await tick();
  leave();
  arrivals.attend('k', other.attendant);
  given.get('letter.pdf')!(record('letter.pdf'));
  await brought;
  expect(other.took).toEqual([]);
  expect(filesOf(stored.ticket)).toEqual(['f', 'g', 'letter.pdf']);
  expect(told).toEqual(['letter.pdf is in “Contract” now.']);
});

test('a Bench that is closed while it still loads leaves them to the server; one that opened meanwhile loads anew', async () => {
  const { arrivals, given, stored } = begin();
  const { took, attendant } = bench(false);
  arrivals.attend('j', attendant);
  const brought = arrivals.bring([files[0]!], to);
  await tick();
  given.get('letter.pdf')!(record('letter.pdf'));
  await brought;
  expect(filesOf(stored.ticket)).toEqual(['f', 'g', 'letter.pdf']);
  expect(took).toEqual(['reload']);
});

test('another window that changes the job at the same moment does not lose them', async () => {
  const { arrivals, given, stored } = begin({ outrun: 3 });
  const brought = arrivals.bring([files[0]!], to);
  await tick();
  given.get('letter.pdf')!(record('letter.pdf'));
  await brought;
  expect(filesOf(stored.ticket)).toEqual(['f', 'g', 'letter.pdf']);
});

test('one that cannot be taken in does not keep the others out, and is named', async () => {
  const { arrivals, given, told, stored } = begin();
  const brought = arrivals.bring(files, to);
  await tick();
  given.get('letter.pdf')!(new Error('It is empty.'));
  await tick();
  given.get('map.pdf')!(record('map.pdf'));
  await brought;
  expect(filesOf(stored.ticket)).toEqual(['f', 'g', 'map.pdf']);
  expect(told).toEqual(['map.pdf is in “Contract” now.', '“Contract”: letter.pdf: It is empty.']);
});

test('what is attached to a mail comes behind it, as documents that say so; what cannot be taken of it is named', async () => {
  const { arrivals, given, told, stored } = begin();
  const brought = arrivals.bring([files[0]!], { ...to, replaced: { place: 0, file: 'f' } });
  await tick();
  const laid = { kind: 'mail', form: {}, taken: {}, attachments: ['plan.pdf', 'locked.pdf', 'seats.csv'] } as const;
  given.get('letter.pdf')!({ ...record('mail'), laid: { ...laid, attachments: [...laid.attachments] } });
  const attached = (name: string, kind: 'mail' | 'csv'): FileRecord => ({
    ...record(name),
    laid: { kind, form: { attachment: name }, taken: {} },
  });
  await tick();
  given.get('plan.pdf')!(attached('plan.pdf', 'mail'));
  await tick();
  given.get('locked.pdf')!(new Error('It is locked.'));
  await tick();
  // Nothing came into the job that a person would take for all of it: the mail is in, and the rest is still on its way.
  expect(arrivals.said()).toBe('Taking in letter.pdf for “Contract”');
  given.get('seats.csv')!(attached('seats.csv', 'csv'));
  await brought;
  expect(arrivals.said()).toBeNull();
  expect(stored.ticket.documents.map(({ file, form }) => [file, form])).toEqual([
    ['mail', {}],
    ['g', {}],
    ['plan.pdf', { attachment: 'plan.pdf' }],
    ['seats.csv', { attachment: 'seats.csv' }],
  ]);
  expect(told.at(-1)).toBe('“Contract”: locked.pdf: It is locked.');
});

test('a file in the place of another finds it where it has gone meanwhile', () => {
  const replaced = { place: 0, file: 'f' };
  expect(withFile(ticket, { id: 'n' }, replaced).documents).toMatchObject([{ file: 'n', pages: 'all' }, { file: 'g' }]);
  const turned = { ...ticket, documents: ticket.documents.toReversed() };
  expect(filesOf(withFile(turned, { id: 'n' }, replaced))).toEqual(['g', 'n']);
  const without = { ...ticket, documents: [ticket.documents[1]!] };
  expect(filesOf(withFile(without, { id: 'n' }, replaced))).toEqual(['g', 'n']);
});
