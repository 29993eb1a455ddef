import { randomUUID } from 'node:crypto';
import { userInfo } from 'node:os';
import {
  inTwoPasses,
  isGreyByItself,
  momentOf,
  partOf,
  rasterFor,
  type Check,
  type Plan,
  type Printer,
} from '@foglio/core';
import { askProfile, IppError, sendShipment, shipmentOf } from '@foglio/ipp';
import { impose, inFormat, PdfError, type ImposeInput } from '@foglio/pdf';
import { confirmed } from './confirm';
import { InputError } from './input-error';
import { loadDocument, loadJob, loadPrinter, planJob, type Job, type Opening } from './job-file';
import { passwordSource } from './password';
import { addressOf, type AccessOptions } from './printer-address';
import { requireSame } from './seen';
import { runSeries, type SeriesEnd, type SeriesOptions } from './series/command';
import { describePages, pagesTable, planTable } from './tables';
import { complain, say, sayJson } from './terminal';
import { writeWhole } from './write-whole';

/** Exit status (model, Command line). */
export const DONE = 0;
const STOPPED = 1;
export const BAD_INPUT = 2;

const stopsOf = (plan: Plan): Check[] => plan.checks.filter((check) => check.level === 'stop');

/** Options of every command that opens documents. */
export interface OpeningOptions {
  readonly passwordFile?: string;
}

const openingOf = ({ passwordFile }: OpeningOptions): Opening => ({
  askPassword: passwordSource(passwordFile),
  remark: complain,
});

/** `pages FILE...`: page facts as a table, or as JSON. */
export async function pagesCommand(
  files: readonly string[],
  options: OpeningOptions & { json?: boolean },
): Promise<number> {
  const opening = openingOf(options);
  const described = [];
  for (const file of files) described.push(describePages(file, await loadDocument(file, opening)));
  if (options.json) sayJson(described);
  else say(described.map(pagesTable).join('\n\n'));
  return DONE;
}

/** `plan TICKET`: the plan in the shape of the model, or a sheet list. */
export async function planCommand(
  file: string,
  options: OpeningOptions & { printer?: string; json?: boolean },
): Promise<number> {
  const printer = options.printer === undefined ? null : await loadPrinter(options.printer);
  const plan = planJob(await loadJob(file, openingOf(options)), printer);
  if (options.json) sayJson(plan);
  else say(planTable(plan, printer));
  return stopsOf(plan).length > 0 ? STOPPED : DONE;
}

/** `impose TICKET -o OUT.pdf`: one set, or with `--set all` every set one after another. */
export async function imposeCommand(
  file: string,
  options: OpeningOptions & { output: string; printer?: string; set?: string },
): Promise<number> {
  const printer = options.printer === undefined ? null : await loadPrinter(options.printer);
  const job = await loadJob(file, openingOf(options));
  const plan = planJob(job, printer);
  const stops = stopsOf(plan);
  stops.forEach((check) => complain(`${file}: ${check.message}`));
  if (stops.length > 0) return STOPPED;
  if (options.set !== undefined && options.set !== 'all') {
    throw new InputError('--set', `"${options.set}" is not known; write "all" or leave it out`);
  }
  const all = options.set === 'all';
  const sets = all ? 'all' : 'one';
  const pdf = await imposeJob(job, plan, { blanks: 'every-sheet', sets, grey: true });
  await writeWhole(options.output, pdf);
  const { sheets, sheetsPerSet } = plan.tally;
  const what = all ? `${sheets} sheets, every set` : `${sheetsPerSet} sheets, one set`;
  say(`${options.output}: ${what}, ${pdf.length} bytes`);
  return DONE;
}

/** `printer ipp://...`: the printer's profile as JSON. */
export async function printerCommand(address: string, options: AccessOptions): Promise<number> {
  sayJson(await askProfile(await addressOf(address, options)));
  return DONE;
}

/** `send TICKET --to ipp://...`: plans against the real printer and sends one job. */
export async function sendCommand(
  file: string,
  options: OpeningOptions & AccessOptions & { to: string; yes?: boolean },
): Promise<number> {
  const job = await loadJob(file, openingOf(options));
  const at = await addressOf(options.to, options);
  const printer: Printer = await askProfile(at);
  const moment = momentOf(new Date());
  const plan = planJob(job, printer, moment);
  const stops = stopsOf(plan);
  stops.forEach((check) => complain(`${file}: ${check.message}`));
  if (stops.length > 0) return STOPPED;
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
      inFormat(await imposeJob(job, partOf(plan, sheets), { blanks: 'none', grey }), sheets, raster),
    jobName: job.ticket.title || file,
    mark: `#${randomUUID().slice(0, 8)}`,
    userName: userInfo().username,
  });
  complain(shipment.reason);
  for (const { id, state } of statuses) say(`job ${id} ${state}: ${plan.tally.sheets} sheets`);
  return DONE;
}

const SERIES_STATUS: Readonly<Record<SeriesEnd, number>> = { done: DONE, stopped: STOPPED, refused: BAD_INPUT };

/** `series --ticket SETUP FILES...`: a set-up over many files, planned, sent and reported together. */
export async function seriesCommand(
  files: readonly string[],
  options: OpeningOptions & SeriesOptions,
): Promise<number> {
  return SERIES_STATUS[await runSeries(files, options, openingOf(options), { say, complain })];
}

/** What a printer wants before it says more, and how it is given that. */
function sayWanted({ login, certificate }: IppError): string {
  if (certificate) return `: ${certificate.fingerprint} of “${certificate.subject}”; trust it with --trust FINGERPRINT`;
  return login === 'wanted' ? '; say them with --login FILE' : '';
}

/** Says an error in one line. */
export function complainAbout(error: unknown): number {
  if (error instanceof IppError) complain(error.message + sayWanted(error));
  else if (error instanceof InputError || error instanceof PdfError) complain(error.message);
  else complain((error as Error).stack ?? String(error));
  return BAD_INPUT;
}

async function imposeJob(
  { file, ticket, documents }: Job,
  plan: Plan,
  how: Pick<ImposeInput, 'blanks' | 'sets' | 'grey'>,
): Promise<Uint8Array> {
  try {
    return await impose({ plan, ticket, documents, ...how });
  } catch (error) {
    if (error instanceof PdfError) throw new InputError(file, error.message);
    throw error;
  }
}
