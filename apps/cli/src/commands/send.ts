import { randomUUID } from 'node:crypto';
import { userInfo } from 'node:os';
import {
  firstPortion,
  inTwoPasses,
  isGreyByItself,
  marksOf,
  MarksError,
  momentOf,
  partOf,
  rasterFor,
  type Plan,
  type Portion,
  type Printer,
  type Ticket,
} from '@foglio/core';
import { askProfile, sendShipment, shipmentOf } from '@foglio/ipp';
import { inFormat } from '@foglio/pdf';
import { confirmed } from '../confirm';
import { BAD_INPUT, DONE, STOPPED } from '../exit-status';
import { imposeJob } from '../impose-job';
import { InputError } from '../input-error';
import { loadJob, planJob } from '../job-file';
import { openingOf, type OpeningOptions } from '../opening';
import { addressOf, type AccessOptions } from '../printer-address';
import { requireSame } from '../seen';
import { complainOfStops } from '../stops';
import { complain, say } from '../terminal';

export interface SendOptions extends OpeningOptions, AccessOptions {
  readonly to: string;
  readonly yes?: boolean;
  /** Ranges of numbers; left out: all of them. */
  readonly sheets?: string;
  readonly sets?: string;
}

/** `send TICKET --to ipp://...`: plans against the real printer and sends one job. */
export async function send(file: string, options: SendOptions): Promise<number> {
  // Nobody is asked about cautions with "--yes", so what they rest on is not looked for.
  const job = await loadJob(file, openingOf(options), options.yes ? 'sheets' : 'all');
  const at = await addressOf(options.to, options);
  const printer: Printer = await askProfile(at);
  const moment = momentOf(new Date());
  const portion = portionOf(file, planJob(job, printer, moment), job.ticket, options);
  const plan = planJob(job, printer, moment, portion);
  if (complainOfStops(file, plan)) return STOPPED;
  const cautions = plan.checks.filter((check) => check.level === 'caution');
  if (cautions.length > 0 && !options.yes) {
    if (!(await confirmed(cautions, plan.tally.sheets))) return BAD_INPUT;
    await requireSame(job, { plan, printer, moment, portion, address: options.to, at });
  }
  if (inTwoPasses(plan)) {
    complain(
      `${file}: ${printer.name} prints one side only: print it one-sided, fronts and backs one after the other (faces), or on another printer`,
    );
    return STOPPED;
  }
  const shipment = shipmentOf(plan, job.ticket, printer);
  const grey = !isGreyByItself(job.ticket, printer);
  const raster = rasterFor(shipment.format, job.ticket, printer);
  const statuses = await sendShipment({
    address: at,
    printer,
    shipment,
    documentOf: async ({ sheets }) =>
      inFormat(Buffer.concat(await imposeJob(job, partOf(plan, sheets), { blanks: 'none', grey })), sheets, raster),
    jobName: job.ticket.title || file,
    mark: `#${randomUUID().slice(0, 8)}`,
    userName: userInfo().username,
  });
  complain(shipment.reason);
  for (const { id, state } of statuses) say(`job ${id} ${state}: ${plan.tally.sheets} sheets`);
  if (portion === 'first-set') say(sayHeld(file, job.ticket, options));
  return DONE;
}

/**
 * What of the ticket is printed: the sheets that are named, the first set where the ticket wants it first, or all of it (null).
 *
 * @throws InputError
 */
function portionOf(file: string, whole: Plan, ticket: Ticket, { sheets, sets }: SendOptions): Portion | null {
  if (sheets === undefined && sets === undefined) return firstPortion(ticket);
  try {
    return marksOf({ sheets, sets }, { sheets: whole.sheets.length, sets: whole.sets });
  } catch (error) {
    if (error instanceof MarksError) throw new InputError(file, error.message);
    throw error;
  }
}

/** What to do once the first set was looked at. */
const sayHeld = (file: string, { copies }: Ticket, { to }: SendOptions): string =>
  `${copies === 2 ? 'the other set was' : `the other ${copies - 1} sets were`} not sent: look at the first, then foglio send ${file} --to ${to} --sets 2${copies === 2 ? '' : `-${copies}`}`;
