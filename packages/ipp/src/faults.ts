import type { Printer, Tray } from '@foglio/core';
import { trayName } from '@foglio/core';

/**
 * What keeps a printer from printing, and what to do about it, in sentences; nothing where it is well.
 *
 * @param reasons printer-state-reasons (RFC 8011, 5.4.12), with or without "-error", "-warning" or "-report"
 */
export function sayFaults(reasons: readonly string[], printer: Printer): string[] {
  return reasons.flatMap((reason) => {
    const keyword = reason.replace(/-(error|warning|report)$/, '');
    const said = FAULTS[keyword]?.(printer);
    return said ? [said] : [];
  });
}

const FAULTS: Readonly<Record<string, (printer: Printer) => string>> = {
  'media-empty': (printer) => `${emptyTrays(printer)}: load paper, and it goes on.`,
  'media-needed': () =>
    'The next sheet needs other paper than its tray holds: load that paper, or cancel and take another tray.',
  'media-low': (printer) => `Paper is running low${inTrays(printer.trays.filter(isLow))}.`,
  'media-jam': () => 'Paper is jammed: open the printer, take the sheet out and close it; the sheet is printed again.',
  'door-open': () => 'A door is open: close it, and it goes on.',
  'cover-open': () => 'A cover is open: close it, and it goes on.',
  'input-tray-missing': () => 'A tray is pulled out: push it in, and it goes on.',
  paused: () => 'It was paused: let it go on at its front panel.',
  'spool-area-full': () => 'Its disk is full: make room there, and it goes on.',
  'toner-empty': () => 'The toner is used up: put a new one in.',
  'marker-supply-empty': () => 'The ink is used up: put a new one in.',
};

/** A tray with no more than this part of what it can hold is nearly empty. */
const LOW = 0.1;

const isLow = ({ loaded, capacity }: Tray): boolean =>
  loaded !== null && capacity !== null && loaded > 0 && loaded <= capacity * LOW;

const inTrays = (trays: readonly Tray[]): string => (trays.length === 0 ? '' : ` in ${trays.map(trayName).join(', ')}`);

function emptyTrays({ trays }: Printer): string {
  const empty = trays.filter(({ loaded }) => loaded === 0).map(trayName);
  if (empty.length === 0) return 'A tray is empty';
  return empty.length === 1 ? `${empty[0]} is empty` : `${empty.join(', ')} are empty`;
}
