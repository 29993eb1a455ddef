import type { SendingRecord } from '@foglio/api';
import { readTicket } from '@foglio/core/validate';
import { sql } from 'drizzle-orm';
import { printers, sendings, series } from '../src/database/schema';
import { changeSending, goingOn, insertSending } from '../src/sendings/sending-store';
import { PROFILE, startServer, type RunningServer } from './running-server';

/** What waits here is put before or after others that wait for the same printer. */

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
  const uri = 'ipp://127.0.0.1:9/ipp/print';
  const held = { uri, panel: null, profile: PROFILE, heldBack: true };
  // Nothing is taken to them: what waits stays where it is.
  await server.db.insert(printers).values(['attic', 'cellar'].map((id) => ({ id, name: id, ...held })));
});
afterAll(() => server.stop());
afterEach(async () => {
  await server.db.update(sendings).set({ state: 'canceled' });
});

type Entered = Partial<typeof sendings.$inferInsert>;

async function enter(title: string, values: Entered = {}): Promise<string> {
  const ticket = readTicket({ version: 1, title, documents: [{ file: '00000000-0000-4000-8000-000000000000' }] });
  const all = { printerId: 'attic', ticket, profile: PROFILE, sheets: 1, ...values };
  return (await insertSending(server.db, all)).id;
}

async function place(id: string, before: string | null) {
  const answer = await fetch(`${server.base}/api/sendings/${id}/place`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ before }),
  });
  return { status: answer.status, said: (await answer.json()) as SendingRecord & { detail?: string } };
}

/** Titles in the order in which a printer gets them. */
async function order(at = 'attic'): Promise<string[]> {
  const all = await goingOn(server.db);
  return all.filter(({ printerId }) => printerId === at).map(({ ticket }) => ticket.title);
}

const turns = async (): Promise<string[]> => {
  const { rows } = await server.db.execute<{ turn: string }>(
    sql`select turn_at::text as turn from sendings where state = 'queued' order by turn_at`,
  );
  return rows.map(({ turn }) => turn);
};

test.each([
  ['before the first', 2, 0, 'c a b d'],
  ['before the one after next', 0, 2, 'b a c d'],
  ['after all', 1, null, 'a c d b'],
  ['where it is', 1, 2, 'a b c d'],
])('%s', async (_, moved, before, wanted) => {
  const ids = [await enter('a'), await enter('b'), await enter('c'), await enter('d')];
  await enter('elsewhere', { printerId: 'cellar' });
  const answer = await place(ids[moved]!, before === null ? null : ids[before]!);
  expect([answer.status, answer.said.id]).toEqual([200, ids[moved]]);
  expect(await order()).toEqual(wanted.split(' '));
  expect(await order('cellar')).toEqual(['elsewhere']);
});

test('whatever many move at once, each is there once and all turns are kept; what comes later comes last', async () => {
  const ids: string[] = [];
  for (let at = 0; at < 12; at += 1) ids.push(await enter(`${at}`));
  const before = await turns();
  const moves = ids.flatMap((id, at) => [
    [id, ids[(at * 5 + 3) % 12]!],
    [id, null],
  ]) as [string, string | null][];
  const answers = await Promise.all(moves.filter(([id, other]) => id !== other).map(([id, other]) => place(id, other)));
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
  expect(await turns()).toEqual(before);
  await enter('last');
  const titles = await order();
  expect(titles.at(-1)).toBe('last');
  expect(titles.slice(0, -1).sort()).toEqual(Array.from({ length: 12 }, (_, at) => `${at}`).sort());
});

test('what does not wait any more, or waits elsewhere, is not put anywhere; why is said', async () => {
  const [a, b] = [await enter('a'), await enter('b')];
  const elsewhere = await enter('elsewhere', { printerId: 'cellar' });
  const [one] = await server.db
    .insert(series)
    .values({ title: 'S', setup: readTicket({ version: 1, documents: [{ file: '*' }] }), printerId: 'attic' })
    .returning();
  const inSeries = await enter('of a series', { seriesId: one!.id });
  const backs = await enter('backs', { pass: 2, handling: 'as-it-lies' });
  const refused = async (id: string, before: string | null) => {
    const { status, said } = await place(id, before);
    return [status, said.detail];
  };
  expect(await refused(a, elsewhere)).toEqual([409, expect.stringContaining('does not wait at this printer')]);
  expect(await refused(inSeries, a)).toEqual([409, expect.stringContaining('file of a series')]);
  expect(await refused(backs, a)).toEqual([409, expect.stringContaining('backs come first')]);
  await changeSending(server.db, b, ['queued'], { state: 'canceled' });
  expect(await refused(b, a)).toEqual([409, 'It does not wait here any more.']);
  expect(await refused(a, b)).toEqual([409, expect.stringContaining('does not wait at this printer')]);
  expect(await order()).toEqual(['a', 'backs']);
});
