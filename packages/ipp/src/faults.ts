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
  'toner-low': () => 'The toner is running low: have a new one at hand.',
  'marker-supply-low': () => 'The ink is running low: have a new one at hand.',
  'developer-empty': () => 'The developer is used up: have it seen to.',
  'marker-waste-full': () => 'The box for used toner is full: empty or change it, and it goes on.',
  'marker-waste-almost-full': () => 'The box for used toner is nearly full: have a new one at hand.',
  'opc-life-over': () => 'Its drum is worn out: have it changed.',
  'fuser-over-temp': () => 'It is too hot: it goes on when it has cooled down.',
  'fuser-under-temp': () => 'It is warming up.',
  'interlock-open': () => 'A cover is open: close it, and it goes on.',
  'output-area-full': () => 'Its output is full: take the stack out, and it goes on.',
  'output-area-almost-full': () => 'Its output is nearly full: take the stack out.',
  'output-tray-missing': () => 'Its output tray is not there: put it in, and it goes on.',
  'input-cannot-feed-size-selected': () => 'It cannot feed paper of that size from the tray: choose another tray.',
  'hold-new-jobs': () => 'It holds new jobs: let it go on at its front panel.',
  'connecting-to-device': () => 'The print server is looking for it: see that the printer itself is switched on.',
  'timed-out': () => 'The print server cannot reach it: see that the printer itself is switched on.',
  shutdown: () => 'It is switched off at the print server: switch it on.',
  deactivated: () => 'It is switched off at the print server: switch it on.',
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
