import { BAD_INPUT, DONE, STOPPED } from '../exit-status';
import { openingOf, type OpeningOptions } from '../opening';
import { runSeries, type SeriesEnd, type SeriesOptions } from '../series/command';
import { complain, say } from '../terminal';

const STATUS: Readonly<Record<SeriesEnd, number>> = { done: DONE, stopped: STOPPED, refused: BAD_INPUT };

/** `series --ticket SETUP FILES...`: a set-up over many files, planned, sent and reported together. */
export const series = async (files: readonly string[], options: OpeningOptions & SeriesOptions): Promise<number> =>
  STATUS[await runSeries(files, options, openingOf(options), { say, complain })];
