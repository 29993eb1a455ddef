import { panelAt, putJson } from './panel';
import { cameOut, StrangePrinters } from './strange-printers';
import { expect, test, type World } from './world';

/** Printers that do not do as others do, sent to at once through the one server: each job comes out once, or a person is asked. */

interface Sending {
  readonly id: string;
  readonly state: string;
  readonly message: string | null;
  readonly sheets: number;
  readonly sheetsDone: number;
}

/** How each ends, and what a person reads. */
const ENDS: Readonly<Record<string, readonly [state: string, message: RegExp | null]>> = {
  'trays-twice': ['completed', null],
  'by-size': ['completed', null],
  'no-overrides': ['completed', null],
  'one-copy': ['completed', null],
  ignores: ['completed', null],
  'job-at-once': ['completed', null],
  'no-pdf': ['completed', null],
  mute: ['completed', null],
  'mixed-up': ['completed', null],
  busy: ['completed', null],
  impatient: ['completed', null],
  'hangs-up': ['completed', null],
  'unknown-words': ['completed', null],
  // It forgets the job with its last sheet: it may have told of that before, or not.
  forgetful: ['uncertain', /^It may have been printed: the printer no longer knows this job\. Look at its output\./],
};

const TICKET = { copies: 2, sides: 'two-sided', tray: 'tray-1' };
const SHEETS = 14;

let printers: StrangePrinters;
test.beforeEach(() => {
  printers = new StrangePrinters();
});
test.afterEach(() => printers.stop());

async function send(world: World, uri: string): Promise<string> {
  const { id: printerId } = await world.api<{ id: string }>('/printers', { uri });
  return sendTo(world, printerId);
}

async function sendTo(world: World, printerId: string): Promise<string> {
  const jobId = await world.demoJob('contract', TICKET);
  const { revision } = await world.api<{ revision: number }>(
    `/jobs/${jobId}/printer`,
    { revision: 1, printerId },
    'PUT',
  );
  return (await world.api<Sending>('/sendings', { jobId, revision, sheets: SHEETS })).id;
}

test('each job at a strange printer comes out once, whatever the printer says of it', async ({ world }) => {
  const sent = await Promise.all(
    Object.keys(ENDS).map(async (manner) => {
      const { uri } = await printers.switchOn(manner, { sheetMs: manner === 'forgetful' ? 100 : 10 });
      return { manner, uri, id: await send(world, uri) };
    }),
  );
  for (const { manner, uri, id } of sent) {
    const now = (): Promise<Sending> => world.api<Sending>(`/sendings/${id}`);
    const [state, message] = ENDS[manner]!;
    const isOver = async (): Promise<boolean> => !['queued', 'sending', 'printing'].includes((await now()).state);
    await expect.poll(isOver, { message: manner, timeout: 60_000 }).toBe(true);
    const { message: said, ...how } = await now();
    if (manner !== 'forgetful' || how.state !== 'completed') expect([manner, how.state]).toEqual([manner, state]);
    if (message && how.state === state) expect(said).toMatch(message);
    await expect.poll(() => cameOut(uri), { message: manner }).toBe(SHEETS);
    if (how.state === 'completed') expect([manner, how.sheetsDone]).toEqual([manner, SHEETS]);
  }
  // What nobody else could know, a person says.
  const { id } = sent.find(({ manner }) => manner === 'forgetful')!;
  if ((await world.api<Sending>(`/sendings/${id}`)).state === 'uncertain')
    expect(await world.api<Sending>(`/sendings/${id}/came-out`, {})).toMatchObject({
      state: 'completed',
      sheetsDone: SHEETS,
    });
});

test('a printer that answers a byte in three seconds keeps no other from printing, nor the list from showing', async ({
  world,
}) => {
  const well = await printers.switchOn(null, { name: 'well' });
  const slow = await printers.switchOn(null, { name: 'slow' });
  const { id: wellId } = await world.api<{ id: string }>('/printers', { uri: well.uri });
  const { id: slowId } = await world.api<{ id: string }>('/printers', { uri: slow.uri });
  // It gets a job while it is well, and is slow from then on.
  await putJson(`${panelAt(slow.uri)}/fault`, { fault: 'media-jam' });
  const stuck = await sendTo(world, slowId);
  await expect.poll(async () => (await world.api<Sending>(`/sendings/${stuck}`)).state).toBe('printing');
  await printers.becomes('slow', slow, 'slow');
  const listed = await world.api<{ id: string }[]>('/printers');
  expect(listed.map(({ id }) => id)).toEqual(expect.arrayContaining([wellId, slowId]));
  const ids = await Promise.all(Array.from({ length: 4 }, () => sendTo(world, wellId)));
  for (const id of ids)
    await expect.poll(async () => (await world.api<Sending>(`/sendings/${id}`)).state).toBe('completed');
  expect(await cameOut(well.uri)).toBe(4 * SHEETS);
  expect((await world.api<Sending>(`/sendings/${stuck}`)).state).toBe('printing');
});
