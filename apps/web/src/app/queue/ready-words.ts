import type { Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { PrinterRecord, SendingRecord } from '@foglio/api';
import type { Ready, Waiting } from '@foglio/core';
import { interval, map } from 'rxjs';
import { percentDone } from './sending-words';

/** Between two looks at the clock: what is said is said to the minute. */
const LOOK_MS = 10_000;

/** Now, every while; within an injection context, with which it ends. Milliseconds since 1970. */
export const clock = (): Signal<number> =>
  toSignal(interval(LOOK_MS).pipe(map(() => Date.now())), { initialValue: Date.now() });

/** What printers have, and after it what waits for them, the earlier first. */
export function waitingIn(
  sendings: readonly SendingRecord[],
  printerOf: (id: string) => PrinterRecord | null,
): Waiting[] {
  const those = (...states: SendingRecord['state'][]): SendingRecord[] =>
    sendings.filter(({ state }) => states.includes(state)).sort((one, other) => one.turnAt.localeCompare(other.turnAt));
  const inOrder = [...those('printing', 'turning', 'sending'), ...those('queued')];
  return inOrder.map((one) => waitingOf(one, printerOf(one.printerId)));
}

function waitingOf(sending: SendingRecord, printer: PrinterRecord | null): Waiting {
  const { id, printerId, state, seconds, updatedAt } = sending;
  // What a person must see to takes as long as that person.
  const isHeld = printer?.heldBack && state === 'queued';
  const goesOn = printer !== null && !isHeld && printer.answers && printer.state !== 'stopped' && state !== 'turning';
  return {
    id,
    printerId,
    seconds: seconds === null || !goesOn ? null : seconds * printer.pace,
    done: state === 'printing' ? percentDone(sending) / 100 : 0,
    since: Date.parse(updatedAt),
  };
}

/** What takes so long by its printer's profile, were it sent now. */
export const toBeSent = ({ id: printerId, pace }: PrinterRecord, seconds: number, now: number): Waiting => ({
  id: 'to be sent',
  printerId,
  seconds: seconds * pace,
  done: 0,
  since: now,
});

/** "about 16:07"; null where it cannot be told. */
export const sayReady = ({ at }: Ready): string | null =>
  at === null ? null : `about ${new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;

/** "one job before it"; null where none is. */
export const sayBefore = ({ before }: Ready): string | null =>
  before === 0 ? null : before === 1 ? 'one job before it' : `${before} jobs before it`;
