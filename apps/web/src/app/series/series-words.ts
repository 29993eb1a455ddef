import type { SeriesBrief, SeriesRow } from '@foglio/api';
import type { RowOutcome } from '@foglio/core';
import { sayState } from '../queue/sending-words';
import { countSheets } from '../bench/amounts';

export const countFiles = (count: number): string => (count === 1 ? '1 file' : `${count} files`);

const STATES: Readonly<Record<SeriesBrief['state'], string>> = {
  draft: 'being set up',
  running: 'being printed',
  paused: 'paused',
  done: 'over',
};

export const saySeriesState = ({ state }: Pick<SeriesBrief, 'state'>): string => STATES[state];

/** How a row stands for the eye. */
export type RowMark = 'ready' | 'caution' | 'unfit' | 'out' | 'done' | 'moving';

/** What is to be said of a file: what is wrong with it, what is to be known, or how its sending goes. */
export function sayRow(
  row: SeriesRow,
  outcome: RowOutcome | undefined,
  isSent: boolean,
): { mark: RowMark; said: string } {
  if (row.sending) {
    const { state, sheetsDone, sheets, message } = row.sending;
    const said = `${sayState(row.sending)}, ${sheetsDone} of ${countSheets(sheets)}`;
    const mark =
      state === 'completed'
        ? 'done'
        : ['failed', 'aborted', 'interrupted', 'uncertain'].includes(state)
          ? 'unfit'
          : 'moving';
    return { mark, said: message ? `${said}. ${message}` : said };
  }
  if (row.skipped) return { mark: 'out', said: row.trouble === null ? 'left out' : `left out: ${row.trouble}` };
  if (row.trouble !== null) return { mark: 'unfit', said: row.trouble };
  if (isSent) return { mark: 'out', said: 'not sent' };
  if (!outcome) return { mark: 'out', said: 'being planned' };
  if (outcome.trouble !== null) return { mark: 'unfit', said: outcome.trouble };
  const stop = outcome.checks.find(({ level }) => level === 'stop');
  if (stop) return { mark: 'unfit', said: stop.message };
  const caution = outcome.checks.find(({ level }) => level === 'caution');
  if (caution) return { mark: 'caution', said: caution.message };
  const note = outcome.checks[0];
  return { mark: 'ready', said: note?.message ?? 'nothing to settle' };
}

/** Files that keep the series from being sent: those that cannot be printed as they are, and are not left out. */
export const isUnfit = (row: SeriesRow, outcome: RowOutcome | undefined): boolean =>
  !row.skipped && sayRow(row, outcome, false).mark === 'unfit';

/** A folder's name where files came in one, otherwise that of the set-up. */
export function titleOfFiles(files: readonly File[], setup: string): string {
  const [folder, rest] = files[0]?.webkitRelativePath.split('/') ?? [];
  return rest === undefined || !folder ? setup : folder;
}
