import { sayMarks } from '@foglio/core';
import type { SendingRecord, SendingState, PrinterRecord } from '@foglio/api';

const WORDS: Record<SendingState, string> = {
  queued: 'waiting to be sent',
  sending: 'being sent',
  printing: 'printing',
  held: 'held at the printer',
  turning: 'fronts printed, the stack is to go back in',
  proofed: 'one set is out: look at it',
  completed: 'completed',
  canceled: 'cancelled',
  aborted: 'aborted by the printer',
  failed: 'not sent',
  interrupted: 'interrupted while being sent',
  uncertain: 'it may have been printed',
};

/** How a sending stands, in words; what keeps its printer from going on with it comes first. */
export function sayState({ state, sheetsDone }: SendingRecord, printer: PrinterRecord | null = null): string {
  if (state === 'queued' && printer?.heldBack) return 'waiting: sending is paused here';
  if (state !== 'printing' || !printer) return WORDS[state];
  if (!printer.answers) return 'sent; the printer does not answer';
  if (printer.reasons.includes('paused')) return 'waiting: the printer is paused';
  if (printer.state === 'stopped') return 'waiting: the printer has stopped';
  const { queued } = printer;
  // Which comes when is the printer's business, and it does not say.
  return sheetsDone === 0 && queued !== null && queued > 1
    ? `at the printer, one of ${queued} jobs there`
    : WORDS[state];
}

/** Of a job in two passes: which one it is at, for as long as that says something. */
export const sayPass = ({ pass, state }: SendingRecord): string =>
  pass === null || state === 'turning' || state === 'completed' ? '' : pass === 1 ? ', fronts' : ', backs';

export const isOver = ({ state }: SendingRecord): boolean =>
  !['queued', 'sending', 'printing', 'held', 'turning', 'proofed'].includes(state);

/** What it prints, where that is not all of its job: "sheets 7 and 8 of set 1 again". */
export function sayPortion({ portion, copies, sheets }: SendingRecord): string | null {
  if (portion === null) return null;
  if (portion === 'first-set') return `the first of ${copies} sets`;
  if (portion === 'other-sets') return sayOthers({ copies });
  const said = sayMarks(portion, { sets: copies });
  return `${sheets === 1 ? 'sheet' : 'sheets'} ${said} again`;
}

/** Those that wait while one looks at the first. */
export const sayOthers = ({ copies }: Pick<SendingRecord, 'copies'>): string =>
  copies === 2 ? 'the other set' : `the other ${copies - 1} sets`;

/** Whether it goes on only when a person does something: looks, puts a stack back, or sees to its printer. */
export const isAsking = ({ state, message }: SendingRecord): boolean =>
  ['proofed', 'turning', 'uncertain'].includes(state) || (state === 'printing' && message !== null);

/** Whether it can be held before it begins, or is. */
export const isHoldable = ({ state, sheetsDone }: SendingRecord): boolean =>
  state === 'held' || (state === 'printing' && sheetsDone === 0);

/** Whether it goes on by itself, with nothing for a person to do: not where sending is paused here. */
export const isMoving = ({ state }: SendingRecord, printer: PrinterRecord | null = null): boolean =>
  state === 'queued' ? printer?.heldBack !== true : ['sending', 'printing'].includes(state);

/** Part of the sheets that came out, in percent. */
export const percentDone = ({ sheets, sheetsDone }: SendingRecord): number => Math.round((100 * sheetsDone) / sheets);
