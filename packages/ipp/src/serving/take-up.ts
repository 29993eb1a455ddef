import { findTray, gridDefaults, readSizeName, type DocumentFacts, type Printer, type Ticket } from '@foglio/core';
import type { Wishes } from './wishes';

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
  const size = wishes.size !== null && readSizeName(wishes.size) ? wishes.size : null;
  const tray = wishes.tray === null ? null : findTray(profile, wishes.tray);
  if (wishes.tray !== null && !tray) remarks.push(`${profile.name} has no tray “${wishes.tray}”, which was asked for.`);
  const { layout, scale, paper } = ticket;
  const made: Ticket = {
    ...ticket,
    ...(wishes.copies === null ? {} : { copies: wishes.copies }),
    ...(wishes.collate === null ? {} : { collate: wishes.collate }),
    ...sidesOf(wishes, documents),
    paper: {
      ...paper,
      ...(size === null ? {} : { size }),
      ...(wishes.type === null || tray ? {} : { type: wishes.type }),
      ...orientationOf(wishes, documents),
    },
    ...(tray ? { tray: tray.id } : {}),
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
  const wide = documents.flatMap(({ pages }) => pages.map(({ width, height }) => (width > height ? 1 : -1)));
  return wide.reduce<number>((sum, one) => sum + one, 0) > 0;
}

/** Portrait turns like a book on its long edge, landscape on its short one (RFC 8011, 5.2.8; model, Turning over). */
function sidesOf({ sides }: Wishes, documents: readonly DocumentFacts[]): Partial<Ticket> {
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

/** "2-5, 7"; what a document has not is left away, and nothing is chosen of a document that has none of them. */
function pagesOf(before: string, { pages }: Wishes, facts: DocumentFacts | undefined): string {
  const last = facts?.pages.length ?? Infinity;
  const there = pages.filter(([from]) => from <= last).map(([from, to]) => [from, Math.min(to, last)] as const);
  if (there.length === 0) return before;
  if (there.length === 1 && there[0]![0] === 1 && there[0]![1] === last) return before;
  return there.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(', ');
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
