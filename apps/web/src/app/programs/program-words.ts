import type { CameBy, IncomingRecord } from '@foglio/api';

/** What became of a job that was printed to Foglio, in a sentence. */
export function sayBecame({ state, queue, jobId, message }: IncomingRecord): string {
  switch (state) {
    case 'open':
      return 'It is still coming.';
    case 'came':
      return 'Its pages are being looked through.';
    case 'waiting':
      if (jobId === null) return 'It was removed from the Desk.';
      return queue === 'desk' || message === null ? 'It lies on the Desk.' : `It waits on the Desk: ${message}`;
    case 'sent':
      return 'It was sent to the printer.';
    case 'canceled':
      return 'The program cancelled it.';
    case 'aborted':
      return message ?? 'It did not come whole.';
  }
}

/** How a job came, for a list: "printed by anna to Contract on letterhead; waits: Tray 2 holds A4 …". */
export const sayCame = ({ user, queue, waits }: CameBy): string =>
  `printed by ${user} to ${queue}${waits === null ? '' : `; waits: ${waits}`}`;

/** The same on the Bench, with what of the program's wishes could not be had. */
export function tellCame(came: CameBy): string[] {
  const { user, queue, waits, remarks } = came;
  const why = waits === null ? [] : [`It was not sent by itself: ${waits}`];
  return [`Printed by ${user} to ${queue}.`, ...why, ...remarks];
}
