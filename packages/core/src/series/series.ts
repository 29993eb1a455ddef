import { countSheets } from '../checks/words';
import { REPAIRED, type DocumentFacts } from '../pages/facts';
import { findTray, trayName, type Printer } from '../printer/printer';
import { plan } from '../planner/planner';
import type { Check, Plan } from '../plan/plan';
import { sealOf, type Sealed, type SealOfMany } from '../sending/seal';
import type { Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';

/** What is to be known of one file: of its plan, or that it did not come whole, which nobody sees where many are printed. */
export interface RowCheck extends Pick<Check, 'level' | 'message'> {
  readonly code: Check['code'] | 'file-repaired';
}

/** What one file of a series comes to: its totals and checks, or why its set-up does not fit it. */
export type RowOutcome =
  | { readonly trouble: string; readonly tally: null; readonly checks: readonly RowCheck[]; readonly seal: null }
  | {
      readonly trouble: null;
      readonly tally: Plan['tally'];
      readonly checks: readonly RowCheck[];
      /** Of all that reaches paper but the moment that texts tell, which is that of sending. */
      readonly seal: SealOfMany;
    };

/** How a file of a series stands: it can be printed, something of it is to be confirmed, or it cannot. */
export type RowStanding = 'ready' | 'caution' | 'unfit';

/**
 * Plans one file of a series. What is wrong with it is told, and keeps no other from being planned.
 *
 * @param address of the printer
 */
export function planRow(ticket: Ticket, documents: Sealed['documents'], printer: Printer, address: string): RowOutcome {
  try {
    const made = plan(ticket, documents, printer);
    const { parts, digest } = sealOf({ plan: made, ticket, documents, printer, address, moment: '' });
    return {
      trouble: null,
      tally: made.tally,
      checks: [...repairedIn(documents), ...made.checks],
      seal: { digest, parts },
    };
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    return { trouble: sayTrouble(error, ticket), tally: null, checks: [], seal: null };
  }
}

const repairedIn = (documents: readonly DocumentFacts[]): RowCheck[] =>
  documents.some(({ remarks }) => remarks?.includes(REPAIRED))
    ? [{ code: 'file-repaired', level: 'caution', message: REPAIRED }]
    : [];

/** What is wrong in a sentence; a route is told by its name, since nobody has counted them. */
export function sayTrouble(
  { place, problem, repair }: Pick<TicketError, 'place' | 'problem' | 'repair'>,
  { routes }: Pick<Ticket, 'routes'>,
): string {
  const route = routes[Number(/^routes\[(\d+)\]/.exec(place)?.[1])];
  const where = route?.name ? `${route.name}: ` : '';
  return `${where}${problem}; ${repair}.`;
}

export function rowStanding({ trouble, checks }: RowOutcome): RowStanding {
  if (trouble !== null || checks.some(({ level }) => level === 'stop')) return 'unfit';
  return checks.some(({ level }) => level === 'caution') ? 'caution' : 'ready';
}

/** Why a file cannot be printed as it is set up, in a sentence; null where it can. */
export const whyUnfit = ({ trouble, checks }: RowOutcome): string | null =>
  trouble ?? checks.find(({ level }) => level === 'stop')?.message ?? null;

/** What is needed of a tray, against what lies in it. */
export interface TrayNeed {
  readonly tray: string;
  readonly name: string;
  readonly size: string;
  readonly needed: number;
  /** Null: it is not known. */
  readonly loaded: number | null;
  /** Which of the rows, from 0, is the first there is not enough paper for; null: there is for all. */
  readonly shortAt: number | null;
}

export interface SeriesTally {
  readonly files: number;
  readonly sheets: number;
  readonly sides: number;
  readonly cost: number;
  readonly heightMm: number;
  /** Null where the printer's speed is not known. */
  readonly seconds: number | null;
  /** In the printer's order, only those that are used. */
  readonly trays: readonly TrayNeed[];
}

/** The totals of the files that are printed, in their order; of what does not fit, nothing is counted. */
export function seriesTally(rows: readonly RowOutcome[], printer: Printer): SeriesTally {
  const tallies = rows.map(({ tally }) => tally);
  const sum = (of: (tally: Plan['tally']) => number): number =>
    tallies.reduce((total, tally) => total + (tally ? of(tally) : 0), 0);
  const isTimed = tallies.every((tally) => tally?.seconds !== null);
  return {
    files: tallies.filter((tally) => tally !== null).length,
    sheets: sum(({ sheets }) => sheets),
    sides: sum(({ sides }) => sides),
    cost: sum(({ cost }) => cost),
    heightMm: sum(({ heightMm }) => heightMm),
    seconds: isTimed ? sum(({ seconds }) => seconds ?? 0) : null,
    trays: printer.trays.flatMap((tray) => {
      let needed = 0;
      let shortAt: number | null = null;
      tallies.forEach((tally, at) => {
        needed += tally?.byTray[tray.id] ?? 0;
        if (shortAt === null && tray.loaded !== null && needed > tray.loaded) shortAt = at;
      });
      const { id, size, loaded } = tray;
      return needed === 0 ? [] : [{ tray: id, name: trayName(tray), size, needed, loaded, shortAt }];
    }),
  };
}

/** More sheets than anybody sends by the way (model, Checks: large-run). */
const LARGE_RUN = 200;

/** Checks of single files that say nothing of a series, which has its own. */
const OF_THE_WHOLE: readonly RowCheck['code'][] = ['tray-short', 'large-run'];

/** A check of a series, and how many of its files it is about; of the paper for all and the amount, the whole is meant. */
export interface SeriesCheck {
  readonly code: RowCheck['code'];
  readonly level: Check['level'];
  readonly message: string;
  readonly files: number;
}

/**
 * What is to be settled or confirmed before a series is sent: the paper for all its files, their amount, and of each kind
 * of caution or note that single files have, the first.
 *
 * @param names of the files, as the rows are in order
 */
export function seriesChecks(rows: readonly RowOutcome[], names: readonly string[], printer: Printer): SeriesCheck[] {
  const { trays, sheets } = seriesTally(rows, printer);
  const nameAt = (at: number): string => names[at] ?? '';
  const short = trays.flatMap(({ tray, needed, loaded, shortAt }): SeriesCheck[] => {
    if (shortAt === null) return [];
    const name = trayName(findTray(printer, tray)!);
    const message = `${name} holds ${loaded} of the ${countSheets(needed)} needed; it runs out at ${nameAt(shortAt)}.`;
    return [{ code: 'tray-short', level: 'caution', message, files: rows.length }];
  });
  const large: SeriesCheck[] =
    sheets > LARGE_RUN
      ? [{ code: 'large-run', level: 'caution', message: `${countSheets(sheets)} in all.`, files: rows.length }]
      : [];
  return [...short, ...large, ...ofSingleFiles(rows, nameAt)];
}

/** One check is more than a caution in a series: nobody turns a stack for each of its files. */
function sayOfFile(
  code: RowCheck['code'],
  level: Check['level'],
  message: string,
  name: string,
): Pick<SeriesCheck, 'level' | 'message'> {
  if (code !== 'two-passes') return { level, message: `${name}: ${message}` };
  const why = 'is two-sided, and this printer prints one side at a time';
  return { level: 'stop', message: `${name} ${why}: print one-sided, or on another printer.` };
}

function ofSingleFiles(rows: readonly RowOutcome[], nameAt: (at: number) => string): SeriesCheck[] {
  const found = new Map<string, SeriesCheck>();
  rows.forEach(({ checks }, at) => {
    for (const { code, level, message } of new Map(checks.map((one) => [one.code, one])).values()) {
      if (OF_THE_WHOLE.includes(code)) continue;
      const known = found.get(code);
      const first = { code, ...sayOfFile(code, level, message, nameAt(at)), files: 0 };
      found.set(code, { ...(known ?? first), files: (known?.files ?? 0) + 1 });
    }
  });
  return [...found.values()];
}
