import { randomUUID } from 'node:crypto';
import { userInfo } from 'node:os';
import { inTwoPasses, isGreyByItself, momentOf, partOf, rasterFor, type Printer } from '@foglio/core';
import { askProfile, sendShipment, shipmentOf } from '@foglio/ipp';
import { inFormat } from '@foglio/pdf';
import { confirmed } from '../confirm';
import { BAD_INPUT, DONE, STOPPED } from '../exit-status';
import { imposeJob } from '../impose-job';
import { loadJob, planJob } from '../job-file';
import { openingOf, type OpeningOptions } from '../opening';
import { addressOf, type AccessOptions } from '../printer-address';
import { requireSame } from '../seen';
import { complainOfStops } from '../stops';
import { complain, say } from '../terminal';

export interface SendOptions extends OpeningOptions, AccessOptions {
  readonly to: string;
  readonly yes?: boolean;
}

/** `send TICKET --to ipp://...`: plans against the real printer and sends one job. */
export async function send(file: string, options: SendOptions): Promise<number> {
  // Nobody is asked about cautions with "--yes", so what they rest on is not looked for.
  const job = await loadJob(file, openingOf(options), options.yes ? 'sheets' : 'all');
  const at = await addressOf(options.to, options);
  const printer: Printer = await askProfile(at);
  const moment = momentOf(new Date());
  const plan = planJob(job, printer, moment);
  if (complainOfStops(file, plan)) return STOPPED;
  const cautions = plan.checks.filter((check) => check.level === 'caution');
  if (cautions.length > 0 && !options.yes) {
    if (!(await confirmed(cautions, plan.tally.sheets))) return BAD_INPUT;
    await requireSame(job, { plan, printer, moment, address: options.to, at });
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
  return DONE;
}
