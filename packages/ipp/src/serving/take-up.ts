import {
  findTray,
  gridDefaults,
  readSizeName,
  type DocumentFacts,
  type Printer,
  type Route,
  type Ticket,
} from '@foglio/core';
import type { Override, Wishes } from './wishes';

/** A ticket with what a program asked for, and what of that could not be had, in sentences. */
export interface TakenUp {
  readonly ticket: Ticket;
  readonly remarks: readonly string[];
}

/**
 * Lays what a program's dialog asked for over a ticket, as the starting point of a job.
 *
 * @param documents of the ticket: which edge a sheet turns on hangs on how its pages are held
 * @param profile of the printer that it is for
 */
export function takeUp(ticket: Ticket, wishes: Wishes, documents: readonly DocumentFacts[], profile: Printer): TakenUp {
  const remarks: string[] = wishes.left.map(
    (name) => `The program asked for ${inWords(name)}, which was not taken up.`,
  );
  for (const { tray } of [wishes, ...wishes.overrides]) {
    if (tray !== null && !findTray(profile, tray))
      remarks.push(`${profile.name} has no tray “${tray}”, which was asked for.`);
  }
  const { layout, scale, paper } = ticket;
  const made: Ticket = {
    ...ticket,
    ...(wishes.copies === null ? {} : { copies: wishes.copies }),
    ...(wishes.collate === null ? {} : { collate: wishes.collate }),
    ...sidesOf(wishes, documents),
    ...trayOf(wishes, profile),
    paper: { ...paper, ...paperOf(wishes, profile), ...orientationOf(wishes, documents) },
    routes: [...wishes.overrides.map((one) => routeOf(one, documents, profile)), ...ticket.routes],
    ...(wishes.pagesPerSide === null ? {} : { layout: layoutOf(layout, wishes) }),
    ...(wishes.monochrome === null ? {} : { color: wishes.monochrome ? 'monochrome' : 'auto' }),
    ...(wishes.quality === null ? {} : { quality: wishes.quality }),
    ...(wishes.outputBin !== null && profile.outputBins.includes(wishes.outputBin)
      ? { outputBin: wishes.outputBin }
      : {}),
    ...(wishes.scaling === null ? {} : { scale: { ...scale, mode: SCALES[wishes.scaling] ?? scale.mode } }),
    documents: ticket.documents.map((one, at) => ({ ...one, pages: pagesOf(one.pages, wishes, documents[at]) })),
  };
  return { ticket: made, remarks };
}

type Printed = Pick<Wishes, 'size' | 'type' | 'tray'>;

const trayOf = ({ tray }: Printed, profile: Printer): { tray?: string } =>
  tray !== null && findTray(profile, tray) ? { tray } : {};

/** Of a tray that is named, what lies in it. */
const paperOf = ({ size, type, tray }: Printed, profile: Printer): Partial<Ticket['paper']> => ({
  ...(size !== null && readSizeName(size) ? { size } : {}),
  ...(type === null || (tray !== null && findTray(profile, tray)) ? {} : { type }),
});

/** Pages of the file that are to be printed otherwise, as a route for them. */
function routeOf(one: Override, documents: readonly DocumentFacts[], profile: Printer): Route {
  const paper = paperOf(one, profile);
  const { sides } = sidesOf(one, documents);
  return {
    pages: selectionOf(one.pages),
    ...trayOf(one, profile),
    ...(Object.keys(paper).length > 0 ? { paper } : {}),
    ...(sides === undefined ? {} : { sides }),
  };
}

/** What may be asked of how large pages are printed. */
export const scalings = (): string[] => Object.keys(SCALES);

/** print-scaling (PWG 5100.16): what is drawn for the paper already is as good as fitted to it. */
const SCALES: Readonly<Record<string, Ticket['scale']['mode']>> = {
  auto: 'auto-fit',
  'auto-fit': 'auto-fit',
  fill: 'fill',
  fit: 'fit',
  none: 'none',
};

/** How the pages of a job are held: as most of them are. */
function isLandscape(documents: readonly DocumentFacts[]): boolean {
  const all = documents.flatMap(({ pages }) => pages);
  return 2 * all.filter(({ width, height }) => width > height).length > all.length;
}

/** Portrait turns like a book on its long edge, landscape on its short one (RFC 8011, 5.2.8; model, Turning over). */
function sidesOf({ sides }: Pick<Wishes, 'sides'>, documents: readonly DocumentFacts[]): Partial<Ticket> {
  if (sides === null) return {};
  if (sides === 'one-sided') return { sides };
  const likeBook = (sides === 'two-sided-long-edge') !== isLandscape(documents);
  return { sides: 'two-sided', bind: likeBook ? 'left' : 'top' };
}

/** Only where it is not how the pages are anyway. */
function orientationOf({ orientation }: Wishes, documents: readonly DocumentFacts[]): Partial<Ticket['paper']> {
  if (orientation === null) return {};
  return (orientation === 'landscape') === isLandscape(documents) ? {} : { orientation };
}

function layoutOf(layout: Ticket['layout'], { pagesPerSide, flow }: Wishes): Ticket['layout'] {
  const base = layout.kind === 'grid' ? layout : gridDefaults;
  const running = (flow ?? base.flow) as typeof base.flow;
  return { ...base, pagesPerSide: pagesPerSide as typeof base.pagesPerSide, columns: null, rows: null, flow: running };
}

/** "2-5, 7". */
const selectionOf = (ranges: Wishes['pages']): string =>
  ranges.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(', ');

/**
 * What a document has of the pages that are asked for. Where it has none of them they stand as they were asked for, so that it
 * is said that they are not there: all of it is the last thing that was wanted.
 */
function pagesOf(before: string, { pages }: Wishes, facts: DocumentFacts | undefined): string {
  if (pages.length === 0) return before;
  const last = facts?.pages.length ?? Infinity;
  const there = pages.filter(([from]) => from <= last).map(([from, to]) => [from, Math.min(to, last)] as const);
  const [first] = there;
  if (!first) return selectionOf(pages);
  return there.length === 1 && first[0] === 1 && first[1] === last ? before : selectionOf(there);
}

/** What people call it. */
const WORDS: Readonly<Record<string, string>> = {
  finishings: 'staples, holes or folds',
  'job-hold-until': 'a time to print at',
  'job-sheets': 'a cover page',
  'job-priority': 'going before other jobs',
  'print-content-optimize': 'a kind of content',
};

const inWords = (attribute: string): string => WORDS[attribute] ?? `“${attribute}”`;
