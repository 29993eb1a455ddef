import { execFileSync } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import type { FileRecord, JobRecord, SeriesRecord } from '@foglio/api';
import type { Form } from '@foglio/core';
import { count, eq } from 'drizzle-orm';
import supertest from 'supertest';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { mailFile } from '../../../packages/typeset/test/make-mail';
import { workbook } from '../../../packages/typeset/test/make-workbook';
import { contents, files, jobs, sources } from '../src/database/schema';
import { giveUpUnfinished } from '../src/files/content-store';
import { startServer, type RunningServer } from './running-server';

let server: RunningServer;
let book: Buffer;

beforeAll(async () => {
  server = await startServer();
  book = Buffer.from(
    await workbook((one) => ['Costs', 'Plan'].forEach((name) => one.addWorksheet(name).addRow([`sheet ${name}`]))),
  );
});
afterAll(() => server.stop());

interface Told {
  readonly code: string;
  readonly detail: string;
}

const api = () => supertest(server.base);

const upload = (name: string, bytes: Buffer, form: Form = {}) =>
  api()
    .post('/api/files')
    .query({ name, form: JSON.stringify(form) })
    .set('Content-Type', 'application/octet-stream')
    .send(bytes);

const file = async (name: string, bytes: Buffer, form: Form = {}): Promise<FileRecord> =>
  (await upload(name, bytes, form).expect(201)).body as FileRecord;

const layOut = async (id: string, form: Form): Promise<FileRecord> =>
  (await api().post(`/api/files/${id}/forms`).send({ form }).expect(201)).body as FileRecord;

const rows = async (table: typeof contents | typeof sources): Promise<number> =>
  (await server.db.select({ n: count() }).from(table))[0]!.n;

test('a workbook is laid out as is asked, and in another form it is another file of the same document', async () => {
  const both = await file('book.xlsx', book);
  expect(both.laid).toEqual({
    kind: 'workbook',
    form: {},
    taken: { sheets: ['Costs', 'Plan'], orientation: 'portrait', fit: 'actual' },
    sheets: [
      { name: 'Costs', hidden: false },
      { name: 'Plan', hidden: false },
    ],
  });
  expect(both.pages).toHaveLength(2);
  const one = await layOut(both.id, { sheets: ['Plan'] });
  expect([one.name, one.pages.length, one.laid?.form]).toEqual(['book.xlsx', 1, { sheets: ['Plan'] }]);
  expect(one.id).not.toBe(both.id);
});

test('what was laid out so before is not laid out again, and the document is kept once', async () => {
  const before = [await rows(contents), await rows(sources)];
  const first = await file('plan.xlsx', book, { gridLines: true });
  expect([await rows(contents), await rows(sources)]).toEqual([before[0]! + 1, before[1]]);
  const again = await file('plan.xlsx', book, { gridLines: true });
  const back = await layOut((await layOut(first.id, { headings: true })).id, { gridLines: true });
  expect(new Set([first, again, back].map(({ sha256 }) => sha256)).size).toBe(1);
  expect(await rows(contents)).toBe(before[0]! + 2);
  // What means nothing for its kind is no other form.
  expect((await layOut(first.id, { gridLines: true, typeSize: 9 })).id).toBe(first.id);
});

test('a document with pages of its own is what it is', async () => {
  const pdf = await file('letter.pdf', Buffer.from(numberedPdf(2)));
  expect(pdf.laid).toBeUndefined();
  expect((await layOut(pdf.id, { fit: 'width' })).id).toBe(pdf.id);
});

test('what cannot be laid out so is told, and nothing is stored', async () => {
  const { id } = await file('book.xlsx', book);
  const before = await rows(contents);
  const missing = await api()
    .post(`/api/files/${id}/forms`)
    .send({ form: { sheets: ['Rates'] } });
  expect([missing.status, (missing.body as Told).code]).toEqual([422, 'file-unusable']);
  expect((missing.body as Told).detail).toBe(
    'It cannot be laid out so: it has no sheet “Rates”, but “Costs”, “Plan”. Choose among its sheets.',
  );
  for (const form of [{ fit: 'big' }, { paper: 'A4' }, { colour: true }]) {
    const answer = await api().post(`/api/files/${id}/forms`).send({ form });
    expect([answer.status, (answer.body as Told).code]).toEqual([422, 'ticket-invalid']);
  }
  const unread = await api().post('/api/files').query({ name: 'a.csv', form: '{' }).send('a,b');
  expect([unread.status, (unread.body as Told).detail]).toEqual([400, 'The parameter form is not JSON.']);
  expect(await rows(contents)).toBe(before);
});

test('a ticket that asks for another form than its file has is neither sent nor written', async () => {
  const { id } = await file('book.xlsx', book);
  const ticket = { version: 1, documents: [{ file: id, form: { sheets: ['Plan'] } }] };
  const job = (await api().post('/api/jobs').send({ ticket }).expect(201)).body as JobRecord;
  const pdf = await api().get(`/api/jobs/${job.id}/imposed.pdf`);
  expect([(pdf.body as Told).code, (pdf.body as Told).detail]).toEqual([
    'stop-stands',
    'book.xlsx is not laid out as you asked yet; these sheets show it as it was before.',
  ]);
});

test('a mail and what is attached to it are documents of one source, each under its own name', async () => {
  const mail = mailFile({ plain: 'see below' }, [
    { type: 'application/octet-stream', name: 'book.xlsx', bytes: book },
    { type: 'application/pdf', name: 'plan.pdf', bytes: numberedPdf(3) },
  ]);
  const message = await file('plan.eml', Buffer.from(mail));
  expect(message.laid).toMatchObject({ kind: 'mail', form: {}, attachments: ['book.xlsx', 'plan.pdf'] });
  const before = await rows(sources);
  const plan = await layOut(message.id, { attachment: 'plan.pdf' });
  expect([plan.name, plan.pages.length, plan.laid]).toEqual([
    'plan.pdf',
    3,
    { kind: 'mail', form: { attachment: 'plan.pdf' }, taken: {} },
  ]);
  const sheet = await layOut(message.id, { attachment: 'book.xlsx' });
  // Another form of it is asked of the attachment as of any document.
  const one = await layOut(sheet.id, { attachment: 'book.xlsx', sheets: ['Plan'] });
  expect([sheet.name, sheet.pages.length, one.name, one.pages.length]).toEqual(['book.xlsx', 2, 'book.xlsx', 1]);
  expect(await rows(sources)).toBe(before);
  const told = (
    await api()
      .post(`/api/files/${message.id}/forms`)
      .send({ form: { attachment: 'gone' } })
      .expect(422)
  ).body as Told;
  expect(told.detail).toContain('it has no attachment “gone”');
});

test('attachments in a series are files of their own, and stay what they are when its set-up changes', async () => {
  const mail = mailFile({ plain: 'x' }, [{ type: 'text/csv', name: 'seats.csv', bytes: Buffer.from('hall,seats') }]);
  const message = await file('seats.eml', Buffer.from(mail));
  const seats = await layOut(message.id, { attachment: 'seats.csv' });
  const setup = { version: 1, documents: [{ file: '*', form: {} }], copies: 2 };
  const { id: printerId } = ((await api().get('/api/printers')).body as { id: string }[])[0]!;
  const { id } = (await api().post('/api/series').send({ title: 'Mail', setup, printerId })).body as SeriesRecord;
  await api()
    .post(`/api/series/${id}/rows`)
    .send({ files: [{ name: 'seats.eml: seats.csv', file: seats.id }] })
    .expect(200);
  const changed = { ...setup, copies: 5 };
  await api().put(`/api/series/${id}`).send({ setup: changed }).expect(200);
  const { rows: now } = (await api().get(`/api/series/${id}`)).body as SeriesRecord;
  expect(now[0]!.ticket).toMatchObject({
    copies: 5,
    documents: [{ file: seats.id, form: { attachment: 'seats.csv' } }],
  });
  expect(now[0]!.changed).toBe(false);
});

test('the files of a series follow its set-up', async () => {
  const { id: printerId } = ((await api().get('/api/printers')).body as { id: string }[])[0]!;
  const setupOf = (form: Form): object => ({ version: 1, documents: [{ file: '*', form }] });
  const begun = (
    await api()
      .post('/api/series')
      .send({ title: 'Budgets', setup: setupOf({}), printerId })
  ).body as SeriesRecord;
  const brought = [await file('one.xlsx', book), await file('two.xlsx', book)].map(({ id, name }) => ({
    name,
    file: id,
  }));
  await api().post(`/api/series/${begun.id}/rows`).send({ files: brought });
  await api()
    .put(`/api/series/${begun.id}`)
    .send({ setup: setupOf({ sheets: ['Plan'] }) })
    .expect(200);
  for (;;) {
    const { rows: now } = (await api().get(`/api/series/${begun.id}`)).body as SeriesRecord;
    const tickets = await Promise.all(
      now.map(async ({ jobId }) => (await server.db.select().from(jobs).where(eq(jobs.id, jobId!)))[0]!.ticket),
    );
    const laid = await Promise.all(
      tickets.map(
        async ({ documents }) => ((await api().get(`/api/files/${documents[0]!.file}`)).body as FileRecord).laid,
      ),
    );
    if (laid.every((one) => one?.form.sheets?.[0] === 'Plan')) break;
    await wait(50);
  }
  await api()
    .put(`/api/series/${begun.id}`)
    .send({ setup: setupOf({ sheets: ['Rates'] }) })
    .expect(200);
  for (;;) {
    const { rows: now } = (await api().get(`/api/series/${begun.id}`)).body as SeriesRecord;
    if (now.every(({ trouble }) => trouble?.includes('it has no sheet “Rates”'))) break;
    await wait(50);
  }
  await api()
    .put(`/api/series/${begun.id}`)
    .send({ setup: setupOf({}) })
    .expect(200);
  for (;;) {
    const { rows: now } = (await api().get(`/api/series/${begun.id}`)).body as SeriesRecord;
    if (now.every(({ trouble }) => trouble === null)) break;
    await wait(50);
  }
});

describe('what takes long', () => {
  const long = Buffer.from(Array.from({ length: 6_000 }, (_, at) => `player ${at},${at},viola`).join('\n'));
  const begin = async (name: string): Promise<FileRecord> =>
    (
      await api()
        .post('/api/files')
        .query({ name, first: true })
        .set('Content-Type', 'application/octet-stream')
        .send(long)
        .expect(201)
    ).body as FileRecord;
  const now = async ({ id }: FileRecord): Promise<FileRecord> =>
    (await api().get(`/api/files/${id}`)).body as FileRecord;

  test('begins with its first pages, is not printed so, and the whole takes their place', async () => {
    const begun = await begin('players.csv');
    expect([begun.pages.length, begun.laid?.unfinished]).toEqual([6, { trouble: null }]);
    const ticket = { version: 1, documents: [{ file: begun.id }] };
    const job = (await api().post('/api/jobs').send({ ticket }).expect(201)).body as JobRecord;
    const early = await api().get(`/api/jobs/${job.id}/imposed.pdf`);
    if (early.status !== 200)
      expect((early.body as Told).detail).toMatch(
        /^players\.csv is still being laid out(, \d+ of \d+ pages)?; these are its first pages\.$/,
      );
    let whole = begun;
    while (whole.laid?.unfinished) {
      await wait(20);
      whole = await now(begun);
    }
    expect(whole.pages.length).toBeGreaterThan(100);
    expect(whole.sha256).not.toBe(begun.sha256);
    await api().get(`/api/jobs/${job.id}/imposed.pdf`).expect(200);
    // Whoever does not ask for the beginning is given the whole.
    expect((await file('players.csv', long)).pages).toHaveLength(whole.pages.length);
  });

  test('tells how far it is, and ends where a person ends it; its first pages stay', async () => {
    const much = Buffer.from(Array.from({ length: 60_000 }, (_, at) => `${at},viola`).join('\n'));
    const answer = api().post('/api/files').query({ name: 'members.csv', first: true });
    const begun = (await answer.set('Content-Type', 'application/octet-stream').send(much).expect(201))
      .body as FileRecord;
    let far = begun;
    while (far.laid?.unfinished?.done === undefined) {
      await wait(50);
      far = await now(begun);
      expect(far.laid?.unfinished?.trouble).toBeNull();
    }
    const { done, of } = far.laid.unfinished;
    expect([done > 0, done < of!, of! > 1_000, far.pages.length]).toEqual([true, true, true, begun.pages.length]);
    await api().delete(`/api/files/${begun.id}/forms`).expect(200);
    let ended = far;
    while (ended.laid?.unfinished?.trouble === null) {
      await wait(20);
      ended = await now(begun);
    }
    expect(ended.laid?.unfinished).toEqual({ trouble: 'It was stopped. Ask for another form, or take it in again.' });
    expect([ended.sha256, ended.pages.length]).toEqual([begun.sha256, begun.pages.length]);
    // What is not being laid out is what it was.
    expect((await api().delete(`/api/files/${begun.id}/forms`).expect(200)).body).toEqual(ended);
  });

  test('another document that begins with the very same pages keeps its own rest', async () => {
    const other = Buffer.concat([long, Buffer.from('\nplayer of the other,1,cello')]);
    const both = await Promise.all(
      [long, other].map(async (bytes) => {
        const answer = api().post('/api/files').query({ name: 'twins.csv', first: true });
        return (await answer.set('Content-Type', 'application/octet-stream').send(bytes).expect(201))
          .body as FileRecord;
      }),
    );
    expect(both[0]!.sha256).toBe(both[1]!.sha256);
    const wholes: FileRecord[] = [];
    for (const begun of both) {
      let whole = begun;
      while (whole.laid?.unfinished) {
        await wait(20);
        whole = await now(begun);
      }
      wholes.push(whole);
    }
    expect(wholes[0]!.sha256).not.toBe(wholes[1]!.sha256);
  });

  test('what was cut off by the server’s end is told as such, and taken in again by the next upload', async () => {
    const begun = await file('cut.csv', long);
    const laid = { ...begun.laid!, unfinished: { trouble: null } };
    await server.db.update(files).set({ laid }).where(eq(files.id, begun.id));
    await giveUpUnfinished(server.db);
    const trouble = 'Foglio was stopped in the middle of it. Take it in again.';
    expect((await now(begun)).laid?.unfinished).toEqual({ trouble });
    const ticket = { version: 1, documents: [{ file: begun.id }] };
    const job = (await api().post('/api/jobs').send({ ticket }).expect(201)).body as JobRecord;
    expect(((await api().get(`/api/jobs/${job.id}/imposed.pdf`)).body as Told).detail).toBe(
      `Only the first pages of cut.csv are here: ${trouble}`,
    );
    expect((await file('cut.csv', long)).laid?.unfinished).toBeUndefined();
  });
});

describe('what a browser lays out', () => {
  const markdown = Buffer.from('# Plan\n\n- [x] done\n');

  test('comes from one that is kept, and from another where that was killed', async () => {
    const plan = await file('plan.md', markdown);
    expect([plan.laid?.kind, plan.pages.length]).toEqual(['markdown', 1]);
    const mine = (): string[] =>
      execFileSync('pgrep', ['-P', String(process.pid), '-f', 'browser-process'], { encoding: 'utf8' })
        .trim()
        .split('\n');
    const [first] = mine();
    const other = await file('other.md', Buffer.from('# Other\n'));
    expect(other.pages).toHaveLength(1);
    expect(mine()).toEqual([first]);
    process.kill(Number(first), 'SIGKILL');
    const third = await file('third.md', Buffer.from('# Third\n'));
    expect(third.pages).toHaveLength(1);
    expect(mine()).not.toEqual([first]);
  });
});
