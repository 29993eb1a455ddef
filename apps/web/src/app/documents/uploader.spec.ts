import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import type { FileRecord } from '@foglio/api';
import type { Form } from '@foglio/core';
import { defer, of, throwError, timer, switchMap } from 'rxjs';
import { aDocument } from '../../stubs/records';
import { Api } from '../api/api';
import { Uploader } from './uploader';

const record = (name: string): FileRecord => ({ ...aDocument([], { id: name, name }), bytes: 9 });

const away = new HttpErrorResponse({ status: 0 });
const locked = new HttpErrorResponse({ status: 422, error: { trouble: 'locked', detail: 'It is locked.' } });

/** @param answers what the server answers for an attachment, one after the other; every answer is three seconds late */
function begin(answers: Readonly<Record<string, readonly (HttpErrorResponse | null)[]>>) {
  const asked: Form[] = [];
  const times = new Map<string, number>();
  const layOut = (_id: string, form: Form) =>
    defer(() => {
      asked.push(form);
      const name = form.attachment ?? '';
      const time = times.get(name) ?? 0;
      times.set(name, time + 1);
      const error = answers[name]?.[time] ?? null;
      return timer(3_000).pipe(switchMap(() => (error ? throwError(() => error) : of(record(name)))));
    });
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { layOut } },
      { provide: MatDialog, useValue: {} },
    ],
  });
  return { uploader: TestBed.inject(Uploader), asked };
}

const mail: FileRecord = {
  ...record('mail'),
  laid: { kind: 'mail', form: {}, taken: {}, attachments: ['a.pdf', 'b.xlsx', 'c.pdf'] },
};

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('what is attached is laid out as is asked, one after the other, though the server is away meanwhile', async () => {
  const { uploader, asked } = begin({ 'b.xlsx': [away, away, null] });
  const attached = uploader.attachedTo(mail, { fit: 'width' });
  await jest.advanceTimersByTimeAsync(30_000);
  const { taken, refused } = await attached;
  expect(taken.map(({ name }) => name)).toEqual(['a.pdf', 'b.xlsx', 'c.pdf']);
  expect(refused).toEqual([]);
  expect(asked.map(({ attachment, fit }) => [attachment, fit])).toEqual([
    ['a.pdf', 'width'],
    ['b.xlsx', 'width'],
    ['b.xlsx', 'width'],
    ['b.xlsx', 'width'],
    ['c.pdf', 'width'],
  ]);
});

test('one that is locked is named, with what to do, and keeps no other out', async () => {
  const { uploader } = begin({ 'a.pdf': [locked] });
  const attached = uploader.attachedTo(mail);
  await jest.advanceTimersByTimeAsync(30_000);
  const { taken, refused } = await attached;
  expect(taken.map(({ name }) => name)).toEqual(['b.xlsx', 'c.pdf']);
  expect(refused).toEqual(['a.pdf: It is locked. Save it and drop it here by itself.']);
});

test('nothing is attached to what is no mail', async () => {
  const { uploader, asked } = begin({});
  expect(await uploader.attachedTo(record('a.pdf'))).toEqual({ taken: [], refused: [] });
  expect(asked).toEqual([]);
});
