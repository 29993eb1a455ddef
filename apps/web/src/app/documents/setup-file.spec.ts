import { TestBed } from '@angular/core/testing';
import type { FileBrief, JobDocument } from '@foglio/api';
import type { Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { of } from 'rxjs';
import { Api } from '../api/api';
import { isSetupFile, SetupFiles, writeSetup } from './setup-file';
import { Uploader } from './uploader';

const ticketOver = (...files: string[]): Ticket =>
  readTicket({ version: 1, documents: files.map((file) => ({ file })), copies: 3 });
const document = (id: string, name: string): JobDocument => ({
  id,
  name,
  pages: [],
  outline: [],
  about: {},
  remarks: [],
  sha256: '',
  read: 0,
});
const fileOf = (name: string, text: string): File =>
  Object.assign(new File([text], name), { text: () => Promise.resolve(text) });

/** What is on the server by name, and what a job was set up with. */
function taker(here: Record<string, string[]> = {}) {
  const created: { documents: { file: string }[]; copies?: number }[] = [];
  const uploaded: string[] = [];
  const api = {
    filesNamed: (name: string) => of((here[name] ?? []).map((id): FileBrief => ({ id, name, bytes: 1, pages: 1 }))),
    createJob: (ticket: (typeof created)[number]) => {
      created.push(ticket);
      return of({ id: 'job' });
    },
  };
  const upload = ({ name }: File) => {
    uploaded.push(name);
    return Promise.resolve({ id: `new ${name}` });
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: Uploader, useValue: { upload } },
    ],
  });
  return { files: TestBed.inject(SetupFiles), created, uploaded };
}

test('a set-up names its documents, and where two have one name tells them by their ids', () => {
  const { documents, copies } = JSON.parse(
    writeSetup(ticketOver('a', 'b', 'c'), [
      document('a', 'one.pdf'),
      document('b', 'two.pdf'),
      document('c', 'two.pdf'),
    ]),
  ) as Ticket;
  expect(documents.map(({ file }) => file)).toEqual(['one.pdf', 'b', 'c']);
  expect(copies).toBe(3);
});

test('what was written is a ticket, and taken up over the file of that name', async () => {
  const { files, created } = taker({ 'one.pdf': ['a'] });
  const text = writeSetup(ticketOver('a'), [document('a', 'one.pdf')]);
  expect(readTicket(JSON.parse(text))).toMatchObject({ documents: [{ file: 'one.pdf' }] });
  expect(await files.takeUp(fileOf('mine.json', text), [])).toMatchObject({ used: [] });
  expect(created).toMatchObject([{ copies: 3, documents: [{ file: 'a' }] }]);
});

test('files that were dropped with it go before those that are here; others are left', async () => {
  const { files, created, uploaded } = taker({ 'one.pdf': ['a'] });
  const beside = [fileOf('one.pdf', '%PDF'), fileOf('other.pdf', '%PDF')];
  const done = await files.takeUp(fileOf('mine.json', '{"version":1,"documents":[{"file":"one.pdf"}]}'), beside);
  expect(done?.used.map(({ name }) => name)).toEqual(['one.pdf']);
  expect(uploaded).toEqual(['one.pdf']);
  expect(created[0]?.documents).toEqual([{ file: 'new one.pdf' }]);
});

test.each([
  ['{"version":1', /^this is not JSON \(.*\); drop a set-up that was saved here\.$/],
  ['{"version":1}', /^documents: there is no list of files; drop a set-up/],
  ['{"version":1,"documents":[{"file":"two.pdf"}]}', /^2 different files called “two.pdf” are here; drop the one/],
])('%s is refused in words, and nothing is set up', async (text, said) => {
  const { files, created } = taker({ 'two.pdf': ['a', 'b'] });
  await expect(files.takeUp(fileOf('mine.json', text), [])).rejects.toThrow(said);
  expect(created).toEqual([]);
});

test('a set-up is told by how its file is called', () => {
  expect([fileOf('Mine.JSON', ''), fileOf('mine.pdf', '')].map(isSetupFile)).toEqual([true, false]);
});
