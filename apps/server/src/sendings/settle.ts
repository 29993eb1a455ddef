import { cancelJob, findJobs, IppError, makesJobsFirst, type JobStatus } from '@foglio/ipp';
import { addressOf } from '../printers/access';
import { findPrinter } from '../printers/printer-store';
import { markOf, userOf } from './as-known';
import { ENDS, sayLastKnown } from './follow';
import { askSending, NO_LONGER_KNOWN, type KeeperParts } from './keeping';
import { changeSending, putOff, type SendingChange, type StoredSending } from './sending-store';

/** So often a sending that was interrupted is begun again by itself. */
const MOST_ATTEMPTS = 8;

const NOTHING_PRINTED = 'Nothing was printed; send it again.';

/**
 * A sending that was being sent by a server that is gone, or over a connection that broke. Whether the printer has the
 * whole document decides: then it will be printed and is followed. What it has not got whole, and printed nothing of, is
 * sent again; of several jobs those after the ones it has. Of the rest a person is told what is known, and looks.
 */
export async function settle(parts: KeeperParts, sending: StoredSending): Promise<void> {
  const { db, presence } = parts;
  if (sending.server !== null && (await presence.lives(sending.server))) return;
  const last = sending.printerJobs.at(-1);
  // Where job and document go at once, the printer may have both though nobody here heard of it.
  if (!makesJobsFirst(sending.profile) && sending.printerJobs.length < sending.parts) return lookForIt(parts, sending);
  if (last === undefined) return sendAgain(parts, sending);
  const status = await askSending(db, sending, last);
  if (status === 'unknown') return leaveOpen(parts, sending, `${NO_LONGER_KNOWN} ${sayLastKnown(sending)}`);
  if (status === 'away') return sayAway(parts, sending);
  if (status.reasons.includes('job-incoming')) {
    // What the printer makes of it is asked in the next round: the rest may have come in this very moment.
    const printer = await findPrinter(db, sending.printerId);
    await cancelJob(addressOf(printer), status.id, userOf(sending)).catch(() => undefined);
    return;
  }
  const isWhole = (ENDS[status.state] ?? 'completed') === 'completed';
  if (isWhole && sending.printerJobs.length === sending.parts)
    return change(parts, sending, { state: 'printing', message: null });
  const printed = status.sheetsCompleted;
  if (isWhole) {
    await change(parts, sending, { state: 'queued', message: null });
    return parts.enqueue(sending);
  }
  if (printed === null) return leaveOpen(parts, sending, sayUncounted(status));
  if (printed > 0) return interrupt(parts, sending, `${printed} of ${sending.sheets} sheets came out; send it again.`);
  return isCalledOff(status) ? interrupt(parts, sending, NOTHING_PRINTED) : sendAgain(parts, sending);
}

/** Looks at the printer for the job that was being sent, by its mark: nobody told its number. */
async function lookForIt(parts: KeeperParts, sending: StoredSending): Promise<void> {
  const printer = await findPrinter(parts.db, sending.printerId);
  let found: number[];
  try {
    found = await findJobs(addressOf(printer), markOf(sending));
  } catch (error) {
    if (!(error instanceof IppError)) throw error;
    return sayAway(parts, sending);
  }
  const job = found.find((id) => !sending.printerJobs.includes(id));
  if (job === undefined)
    return leaveOpen(
      parts,
      sending,
      'It may have been printed: the connection broke while it was on its way. Look at its output.',
    );
  const printerJobs = [...sending.printerJobs, job];
  if (printerJobs.length === sending.parts)
    return change(parts, sending, { state: 'printing', printerJobs, message: null });
  await change(parts, sending, { state: 'queued', printerJobs, message: null });
  await parts.enqueue(sending);
}

async function sayAway({ db }: KeeperParts, sending: StoredSending): Promise<void> {
  const message = 'Sending was interrupted and the printer does not answer; it is asked again.';
  if (sending.message !== message) await changeSending(db, sending.id, ['sending'], { message });
}

const sayUncounted = ({ state, message }: JobStatus): string =>
  `It may have been printed in part: the printer ended it (${message ?? state}) and does not count sheets. Look at its output.`;

/** Sends again what the printer has nothing of: but not for ever, should it be the job that ends whoever sends it. */
async function sendAgain(parts: KeeperParts, sending: StoredSending): Promise<void> {
  if (sending.attempts >= MOST_ATTEMPTS) return interrupt(parts, sending, NOTHING_PRINTED);
  const again = putOff(sending, 'The printer did not get it whole and printed nothing of it. It is sent again.');
  const printerJobs = sending.printerJobs.slice(0, -1);
  const later = await changeSending(parts.db, sending.id, ['sending'], { ...again, printerJobs });
  if (later) await parts.enqueue(later);
}

async function interrupt(parts: KeeperParts, sending: StoredSending, outcome: string): Promise<void> {
  if (sending.pass === 2 && outcome === NOTHING_PRINTED) {
    const message = 'Sending the backs was interrupted, and none was printed: begin them again.';
    return change(parts, sending, { state: 'turning', message });
  }
  await change(parts, sending, { state: 'interrupted', message: `Sending was interrupted. ${outcome}` });
}

/** Nobody here can know whether it was printed: a person looks, and says. */
const leaveOpen = (parts: KeeperParts, sending: StoredSending, message: string): Promise<void> =>
  change(parts, sending, { state: 'uncertain', message });

async function change({ db }: KeeperParts, sending: StoredSending, what: SendingChange): Promise<void> {
  await changeSending(db, sending.id, ['sending'], { server: null, ...what });
}

/** Whether a person at the printer does not want the job (RFC 8011, 5.3.8). */
const isCalledOff = ({ reasons }: JobStatus): boolean =>
  reasons.includes('job-canceled-at-device') || reasons.includes('job-canceled-by-operator');
