import { formatFor, isAsleep, sayFinishing, saySize, type Printer } from '@foglio/core';
import type { PrinterRecord } from '@foglio/api';

/** "A4, A3 and US Letter" */
function sayPapers({ trays }: Printer): string {
  const sizes = [...new Set(trays.map(({ size }) => saySize(size)))];
  return sizes.length === 1 ? (sizes[0] as string) : `${sizes.slice(0, -1).join(', ')} and ${sizes.at(-1)}`;
}

/** "A4 and A3; both sides; colour" */
export const sayAbilities = (printer: Printer): string =>
  [
    sayPapers(printer),
    printer.duplex ? 'both sides' : 'one side at a time',
    printer.color ? 'colour' : 'black only',
  ].join('; ');

/** What a printer can do, a line each. */
export function listAbilities(printer: Printer): string[] {
  const { duplex, maxDuplexWeight, color, delivers, jobs } = printer;
  const heaviest = maxDuplexWeight === null ? '' : `, up to ${maxDuplexWeight} g/m²`;
  return [
    sayMixing(jobs),
    duplex ? `Both sides, turned along either edge${heaviest}` : 'One side; both sides in two passes, by hand',
    color ? 'Colour and grey' : 'Black and grey only',
    sayCopies(jobs),
    delivers === 'face-down' ? 'Sheets come out face down, in order' : 'Sheets come out face up, the last on top',
    sayMargins(printer),
    ...sayFinisher(printer),
    ...sayFormat(printer),
  ];
}

/** How far papers and sides can be mixed within one job. */
function sayMixing({ overrides, documents }: Printer['jobs']): string {
  if (overrides.includes('media-col') && overrides.includes('sides')) {
    return 'Takes a job with several papers, one-sided and two-sided, as one job';
  }
  if (documents) return 'Takes several papers in one job, document by document';
  return 'One paper a job, or each page from the tray with its size';
}

function sayCopies({ takes, mostCopies }: Printer['jobs']): string {
  const most = mostCopies === null ? '' : `, up to ${mostCopies}`;
  if (takes && !takes['copies']) return 'Copies are written out for it, set by set';
  return takes && !takes['sheet-collate'] && !takes['multiple-document-handling']
    ? `Copies of a single sheet${most}; sets are written out for it`
    : `Sets put in order by the printer${most}`;
}

/** Nothing of a printer without a finisher. */
function sayFinisher({ finishings, maxStapled }: Printer): string[] {
  if (finishings.length === 0) return [];
  const said = finishings.map(sayFinishing).join(', ');
  return [`Finishes sets: ${said}${maxStapled === null ? '' : `; staples up to ${maxStapled} sheets`}`];
}

function sayMargins({ margin, trays }: Printer): string {
  const own = new Set(trays.map((tray) => tray.margin ?? margin));
  const [least, most] = [Math.min(...own), Math.max(...own)];
  return `Keeps ${least === most ? most : `${least} to ${most}`} mm free along each edge`;
}

/** Only where it is not the sheets themselves that are sent. */
function sayFormat(printer: Printer): string[] {
  const format = formatFor(printer);
  if (format === 'application/pdf') return [];
  if (format === 'image/jpeg') return ['Is sent a picture of one side at a time'];
  return [format === null ? 'Takes no kind of file that Foglio writes' : 'Is sent pictures of the sheets'];
}

/** What keeps a printer from printing what it is sent, in a sentence; null where nothing does. */
export function sayHold(printer: PrinterRecord): string | null {
  if (printer.heldBack) return `Sending to ${printer.name} is paused in the Queue: what is sent waits here.`;
  const state = sayState(printer);
  if (state === 'ready' || state === 'asleep' || state === 'printing') return null;
  const said = state === 'does not answer' ? state : `is ${state}`;
  return `${printer.name} ${said}: what is sent waits for it.`;
}

/** "ready", "asleep", "printing", "paused", "stopped", "does not answer" */
export function sayState({ answers, state, reasons }: PrinterRecord): string {
  if (!answers) return 'does not answer';
  if (reasons.includes('paused')) return 'paused';
  if (state === 'idle') return isAsleep(reasons) ? 'asleep' : 'ready';
  return state === 'stopped' ? 'stopped' : 'printing';
}

/** That nothing is wrong with it, in a sentence. */
export function sayWell(printer: PrinterRecord): string {
  const { queued } = printer;
  switch (sayState(printer)) {
    case 'printing':
      return queued !== null && queued > 1 ? `Printing, with ${queued - 1} more to come.` : 'Printing.';
    case 'asleep':
      return 'Asleep: it wakes up when something is sent.';
    default:
      return 'Ready.';
  }
}
