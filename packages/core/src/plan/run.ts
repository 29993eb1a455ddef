import type { DocumentFacts } from '../pages/facts';
import { sectionStarts } from '../pages/outline';
import { chooseTray, type Printer } from '../paper/printer';
import { matchSize, readSizeName, type NamedSize, type Size } from '../paper/sizes';
import type { Layout, PageSettings, Sides, Ticket } from '../ticket/ticket';
import type { Extent } from './place';
import type { RoutedPage } from './route';

/** Why a run begins where it does; "start" is the first run of a job. */
export type RunCause = 'start' | 'document' | 'section' | 'own-sheet' | 'settings';

/** Consecutive pages that are printed alike, so that they may share sheets. */
export interface Run {
  /** Counted from 1. */
  readonly number: number;
  readonly cause: RunCause;
  readonly pages: readonly RoutedPage[];
  readonly paper: NamedSize;
  readonly tray: string | null;
  readonly sides: Sides;
  /** Of the run's first page: what the layout of the whole run follows. */
  readonly settings: PageSettings;
}

/** What must be equal for two pages to share a sheet. */
interface Kind {
  readonly paper: NamedSize;
  readonly tray: string | null;
  readonly sides: Sides;
  readonly settings: PageSettings;
}

/**
 * Steps 3 and 4. Finds each page's paper and tray, and starts a new run where tray, paper (size, type, orientation),
 * sides or layout change, at a new document or section where wanted, and around every page that has a sheet of its own.
 */
export function divideIntoRuns(
  routed: readonly RoutedPage[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): Run[] {
  const kindOf = kindFinder(printer);
  const causeOf = causeFinder(ticket, documents);
  const runs: Run[] = [];
  let kind: Kind | null = null;
  let previous: RoutedPage | null = null;
  let pages: RoutedPage[] = [];
  for (const one of routed) {
    const next = kindOf(one);
    const cause = previous ? (causeOf(previous, one) ?? (kind && isAlike(kind, next) ? null : 'settings')) : 'start';
    if (cause) {
      pages = [];
      const { paper, tray, sides } = next;
      runs.push({ number: runs.length + 1, cause, pages, paper, tray, sides, settings: one.settings });
    }
    pages.push(one);
    kind = next;
    previous = one;
  }
  return runs;
}

/** Tells why two pages must not share a sheet even where they are printed alike; null where they may. */
function causeFinder(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
): (previous: RoutedPage, page: RoutedPage) => RunCause | null {
  // A slip between documents can only lie between sheets.
  const atDocuments = ticket.newSheet.documents || ticket.slips.between === 'documents';
  const starts = ticket.newSheet.sections ? documents.map(sectionStarts) : null;
  return (previous, page) => {
    if (atDocuments && page.document !== previous.document) return 'document';
    if (starts?.[page.document - 1]?.has(page.page)) return 'section';
    if (page.settings.ownSheet || previous.settings.ownSheet) return 'own-sheet';
    return null;
  };
}

/** Pages of one route and one size are of one kind; found once, since a job has few of them and many pages. */
function kindFinder(printer: Printer): (page: RoutedPage) => Kind {
  const bySettings = new Map<PageSettings, Map<Extent, Kind>>();
  let last: RoutedPage | null = null;
  let lastKind: Kind | null = null;
  return (page) => {
    const { settings, size } = page;
    if (lastKind && last?.settings === settings && last.size === size) return lastKind;
    let bySize = bySettings.get(settings);
    if (!bySize) bySettings.set(settings, (bySize = new Map<Extent, Kind>()));
    let kind = bySize.get(size);
    if (!kind) bySize.set(size, (kind = makeKind(page, printer)));
    last = page;
    lastKind = kind;
    return kind;
  };
}

function makeKind(page: RoutedPage, printer: Printer): Kind {
  const { settings } = page;
  const paper = paperFor(page);
  const tray = chooseTray(printer, settings.tray, paper.name, settings.paper.type);
  const sides = settings.layout.kind === 'booklet' ? 'two-sided' : settings.sides;
  return { paper, tray, sides, settings };
}

function isAlike(one: Kind, other: Kind): boolean {
  if (one === other) return true;
  const { paper, layout } = one.settings;
  return (
    one.tray === other.tray &&
    one.sides === other.sides &&
    one.paper.name === other.paper.name &&
    paper.type === other.settings.paper.type &&
    paper.orientation === other.settings.paper.orientation &&
    isSameLayout(layout, other.settings.layout)
  );
}

/** Layouts are completed from the same defaults, so like ones have their fields in the same order. */
const isSameLayout = (one: Layout, other: Layout): boolean =>
  one === other || JSON.stringify(one) === JSON.stringify(other);

function paperFor({ settings, size: page }: RoutedPage): NamedSize {
  const { size } = settings.paper;
  if (size === 'as-page') return matchSize(page.width, page.height);
  // That the name can be read was asked before planning.
  return { name: size, ...(readSizeName(size) as Size) };
}
