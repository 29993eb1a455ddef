import { DONE, STOPPED } from '../exit-status';
import { loadJob, loadPrinter, planJob } from '../job-file';
import { openingOf, type OpeningOptions } from '../opening';
import { stopsOf } from '../stops';
import { planTable } from '../tables';
import { say, sayJson } from '../terminal';

export interface PlanOptions extends OpeningOptions {
  readonly printer?: string;
  readonly json?: boolean;
}

/** `plan TICKET`: the plan in the shape of the model, or a sheet list. */
export async function plan(file: string, options: PlanOptions): Promise<number> {
  const printer = options.printer === undefined ? null : await loadPrinter(options.printer);
  const planned = planJob(await loadJob(file, openingOf(options)), printer);
  if (options.json) sayJson(planned);
  else say(planTable(planned, printer));
  return stopsOf(planned).length > 0 ? STOPPED : DONE;
}
