import type { SendingState } from '@foglio/api';
import { askStatus, IppError, sayFaults, type JobState, type JobStatus } from '@foglio/ipp';
import { addressOf } from '../printers/access';
import { findPrinter } from '../printers/printer-store';
import { measurePace } from './pace';
import { askSending, NO_LONGER_KNOWN, type KeeperParts } from './keeping';
import type { JobEnd } from './job-end';
import { changeSending, isOver, type StoredSending } from './sending-store';

/** While the printer has the whole job and has not ended it. */
export const AT_PRINTER: readonly SendingState[] = ['printing', 'held'];

/** What a job of a printer ended as is what its sending ended as. */
export const ENDS: Partial<Record<JobState, JobEnd['state']>> = {
  completed: 'completed',
  canceled: 'canceled',
  aborted: 'aborted',
};

/**
 * Takes over what the printer says of the jobs it has. What one ended as is kept, and not asked again: printers forget.
 *
 * @returns whether anything is otherwise than it was
 */
export async function follow(parts: KeeperParts, sending: StoredSending): Promise<boolean> {
  const { db } = parts;
  const ends: Record<number, JobEnd> = { ...sending.jobEnds };
  const open: JobStatus[] = [];
  for (const job of sending.printerJobs) {
    if (ends[job]) continue;
    const status = await askSending(db, sending, job);
    if (status === 'away')
      return say(parts, sending, 'The printer does not answer; it has the whole job and may be printing.');
    if (status === 'unknown') return forget(parts, sending);
    const end = ENDS[status.state];
    if (end) ends[job] = { state: end, sheets: status.sheetsCompleted, message: status.message };
    else open.push(status);
  }
  const ended = Object.values(ends);
  const counted = [...ended.map(({ sheets }) => sheets), ...open.map(({ sheetsCompleted }) => sheetsCompleted)];
  const state = stateOf(ended, open);
  // Where the printer counts no sheets, all of a completed job came out.
  const isWhole = state === 'completed' && counted.includes(null);
  const sheetsDone = isWhole ? sending.sheets : counted.reduce<number>((sum, one) => sum + (one ?? 0), 0);
  const message = await sayHindrance(parts, sending, state, ended, open);
  const isSame =
    state === sending.state &&
    message === sending.message &&
    sheetsDone === sending.sheetsDone &&
    ended.length === Object.keys(sending.jobEnds).length;
  if (isSame) return false;
  const next = state === 'completed' ? afterAllCameOut(sending) : state;
  const changed = await changeSending(db, sending.id, AT_PRINTER, { state: next, message, sheetsDone, jobEnds: ends });
  if (changed?.state === 'completed' || changed?.state === 'proofed') await measurePace(db, changed.printerId);
  // The next file of its series may be waiting for this one.
  if (changed?.seriesId && isOver(changed)) await parts.enqueue(changed);
  return true;
}

/** After the fronts a person puts the stack back; after the first set, one looks at it. */
export const afterAllCameOut = ({ pass, portion }: StoredSending): 'turning' | 'proofed' | 'completed' =>
  pass === 1 ? 'turning' : portion === 'first-set' ? 'proofed' : 'completed';

async function say({ db }: KeeperParts, sending: StoredSending, message: string): Promise<boolean> {
  if (sending.message === message) return false;
  await changeSending(db, sending.id, AT_PRINTER, { message });
  return true;
}

/**
 * The printer knows nothing of a job that it had whole: it forgets what is over. If it had counted every sheet, all came
 * out; otherwise nobody here can know, and a person looks.
 */
async function forget(parts: KeeperParts, sending: StoredSending): Promise<boolean> {
  const { sheets, sheetsDone } = sending;
  const isWhole = sheets > 0 && sheetsDone >= sheets;
  const state = isWhole ? afterAllCameOut(sending) : 'uncertain';
  const message = isWhole ? null : `${NO_LONGER_KNOWN} ${sayLastKnown(sending)}`;
  const changed = await changeSending(parts.db, sending.id, AT_PRINTER, { state, message });
  if (changed?.seriesId && isOver(changed)) await parts.enqueue(changed);
  return true;
}

/** What was known of it last. */
export const sayLastKnown = ({ sheets, sheetsDone }: Pick<StoredSending, 'sheets' | 'sheetsDone'>): string =>
  sheetsDone > 0
    ? `When it last told, ${sheetsDone} of ${sheets} sheets were out.`
    : 'It had told of no sheet that came out.';

/** What a person should know of jobs that are not simply going on; null where nothing. */
async function sayHindrance(
  { db }: KeeperParts,
  sending: StoredSending,
  state: SendingState,
  ended: readonly JobEnd[],
  open: readonly JobStatus[],
): Promise<string | null> {
  if (state === 'held') return 'It is held at the printer until it is released.';
  if (!open.some((one) => one.state === 'processing-stopped')) {
    return [...ended, ...open].find(({ message }) => message !== null)?.message ?? null;
  }
  const printer = await findPrinter(db, sending.printerId);
  try {
    const { profile, reasons } = await askStatus(addressOf(printer));
    const said = sayFaults(reasons, profile).join(' ');
    return said === '' ? 'The printer has stopped; look at its panel.' : said;
  } catch (error) {
    if (error instanceof IppError) return null;
    throw error;
  }
}

/** How several jobs stand together: as the first that went wrong, held as long as one is, over only when all are. */
function stateOf(ended: readonly JobEnd[], open: readonly JobStatus[]): SendingState {
  const states = [
    ...ended.map(({ state }) => state),
    ...open.map(({ state }): SendingState => (state === 'pending-held' ? 'held' : 'printing')),
  ];
  const order: readonly SendingState[] = ['aborted', 'canceled', 'held', 'printing'];
  return order.find((state) => states.includes(state)) ?? 'completed';
}
