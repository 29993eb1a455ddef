import { sql } from 'drizzle-orm';
import supertest from 'supertest';
import { ANY_FILE, isSetup, type Ticket } from '@foglio/core';
import { enterHouseSetup } from '../src/setups/setup-store';
import { startServer, type RunningServer } from './running-server';

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

interface Setup {
  readonly id: string;
  readonly name: string;
  readonly ticket: Ticket;
  readonly starts: string | null;
}

const api = () => supertest(server.base);
const all = async (): Promise<Setup[]> => (await api().get('/api/setups')).body as Setup[];
const ticket = { version: 1, title: 'Mine', documents: [{ file: 'contract.pdf', pages: '2-' }], copies: 3 };
const save = async (name: string, more: object = {}): Promise<Setup> => {
  const answer = await api()
    .post('/api/setups')
    .send({ name, ticket, ...more });
  expect(answer.status).toBe(201);
  return answer.body as Setup;
};
const change = (setup: Setup, what: object) => api().put(`/api/setups/${setup.id}`).send(what);

test('there is a house set-up from the start, everything at its usual value, and once', async () => {
  await enterHouseSetup(server.db);
  const [house, ...others] = await all();
  expect([house?.name, house?.starts, others]).toEqual(['House set-up', 'house', []]);
  expect(house?.ticket).toMatchObject({ documents: [{ file: ANY_FILE, pages: 'all' }], copies: 1, routes: [] });
});

test('a ticket is saved without its documents, changed, renamed and removed', async () => {
  const saved = await save('Contracts', { printerId: 'test-office' });
  expect(isSetup(saved.ticket)).toBe(true);
  expect(saved.ticket).toMatchObject({ title: '', copies: 3, documents: [{ file: ANY_FILE, pages: '2-' }] });
  expect((await change(saved, { name: 'Agreements' })).body).toMatchObject({ name: 'Agreements' });
  expect((await change(saved, { ticket: { ...ticket, copies: 9 } })).body).toMatchObject({ ticket: { copies: 9 } });
  expect((await api().delete(`/api/setups/${saved.id}`)).status).toBe(204);
  expect((await all()).map(({ name }) => name)).toEqual(['House set-up']);
  expect((await change(saved, { name: 'Again' })).body).toMatchObject({ code: 'not-found' });
});

test('names are told apart by more than case', async () => {
  const saved = await save('Programmes');
  const again = await api().post('/api/setups').send({ name: 'PROGRAMMES', ticket });
  expect([again.status, again.body]).toMatchObject([409, { code: 'name-taken' }]);
  const other = await save('Flyers');
  expect((await change(other, { name: 'programmes ' })).body).toMatchObject({ code: 'name-taken' });
  expect((await change(saved, { name: 'programmes' })).status).toBe(200);
});

test('one is the house set-up, which is neither given up nor removed; a printer may have one of its own', async () => {
  const first = await save('First');
  const before = (await all())[0] as Setup;
  expect((await change(before, { starts: null })).body).toMatchObject({ code: 'setup-needed' });
  expect((await api().delete(`/api/setups/${before.id}`)).body).toMatchObject({ code: 'setup-needed' });
  expect((await change(first, { starts: 'house' })).body).toMatchObject({ starts: 'house' });
  expect((await all()).filter(({ starts }) => starts === 'house').map(({ name }) => name)).toEqual(['First']);

  const own = await save('Own', { printerId: 'test-office' });
  const later = await save('Later', { printerId: 'test-office' });
  expect((await change(own, { starts: 'printer' })).body).toMatchObject({ starts: 'printer' });
  expect((await change(later, { starts: 'printer' })).status).toBe(200);
  expect((await all()).filter(({ starts }) => starts === 'printer').map(({ name }) => name)).toEqual(['Later']);
  expect((await change(before, { starts: 'printer' })).body).toMatchObject({ code: 'body-invalid' });
});

test.each([
  [{ name: 'x', ticket: { version: 1, documents: [{ file: 'a' }], copies: 0 } }, 'ticket-invalid', /copies: out of/],
  [{ name: ' ', ticket }, 'body-invalid', /name/],
  [{ name: 'x', ticket, printerId: 'nowhere' }, 'not-found', /nowhere/],
])('%j is refused in words', async (body, code, detail) => {
  const answer = await api().post('/api/setups').send(body);
  expect(answer.body).toMatchObject({ code });
  expect((answer.body as { detail: string }).detail).toMatch(detail);
});

test('what an older version kept is read with the defaults of what is new since, without a migration', async () => {
  const saved = await save('Old');
  await server.db.execute(sql`update setups set ticket = ticket - 'slips' #- '{scale,percent}' where id = ${saved.id}`);
  const { rows } = await server.db.execute(sql`select ticket from setups where id = ${saved.id}`);
  expect(rows[0]?.['ticket']).not.toHaveProperty('slips');
  const read = (await all()).find(({ id }) => id === saved.id);
  expect(read?.ticket).toEqual(saved.ticket);
});
