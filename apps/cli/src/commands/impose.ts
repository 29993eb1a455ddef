import { DONE, STOPPED } from '../exit-status';
import { imposeJob } from '../impose-job';
import { InputError } from '../input-error';
import { loadJob, loadPrinter, planJob } from '../job-file';
import { openingOf, type OpeningOptions } from '../opening';
import { complainOfStops } from '../stops';
import { say } from '../terminal';
import { writeWhole } from '../write-whole';

export interface ImposeOptions extends OpeningOptions {
  readonly output: string;
  readonly printer?: string;
  readonly set?: string;
}

/** `impose TICKET -o OUT.pdf`: one set, or with `--set all` every set one after another. */
export async function impose(file: string, options: ImposeOptions): Promise<number> {
  if (options.set !== undefined && options.set !== 'all') {
    throw new InputError('--set', `"${options.set}" is not known; write "all" or leave it out`);
  }
  const printer = options.printer === undefined ? null : await loadPrinter(options.printer);
  // What is looked at page by page decides on notes and cautions, which are told by "plan"; here stops alone are.
  const job = await loadJob(file, openingOf(options), 'sheets');
  const plan = planJob(job, printer);
  if (complainOfStops(file, plan)) return STOPPED;
  const all = options.set === 'all';
  const pdf = await imposeJob(job, plan, { blanks: 'every-sheet', sets: all ? 'all' : 'one', grey: true });
  await writeWhole(options.output, pdf);
  const { sheets, sheetsPerSet } = plan.tally;
  const what = all ? `${sheets} sheets, every set` : `${sheetsPerSet} sheets, one set`;
  say(`${options.output}: ${what}, ${pdf.reduce((sum, { length }) => sum + length, 0)} bytes`);
  return DONE;
}
