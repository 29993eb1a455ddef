import type { DocumentFacts, PageFacts } from '../pages/facts';
import { chooseTray, type Printer } from '../paper/printer';
import { matchSize, readSizeName, type NamedSize } from '../paper/sizes';
import type { PageSettings, Sides, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import type { RoutedPage } from './route';

/** A page as it is read: after its own Rotate entry and the ticket's `rotate`. */
export interface RunPage extends RoutedPage {
  readonly width: number;
  readonly height: number;
}

/** Consecutive pages that are printed alike, so that they may share sheets. */
export interface Run {
  /** Counted from 1. */
  readonly number: number;
  readonly pages: readonly RunPage[];
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
  readonly key: string;
}

/**
 * Steps 3 and 4. Finds each page's paper and tray, and starts a new run where tray, paper (size, type, orientation),
 * sides or layout change, at a new document where wanted, and around every page that has a sheet of its own.
 */
export function divideIntoRuns(
  routed: readonly RoutedPage[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): Run[] {
  const kindOf = kindFinder(printer);
  const runs: Run[] = [];
  let pages: RunPage[] = [];
  let kind: Kind | null = null;
  const close = (): void => {
    if (!kind || pages.length === 0) return;
    const { paper, tray, sides } = kind;
    runs.push({ number: runs.length + 1, pages, paper, tray, sides, settings: (pages[0] as RunPage).settings });
    pages = [];
  };
  let previous: RoutedPage | null = null;
  for (const one of routed) {
    const page = asRead(one, ticket, documents);
    const next = kindOf(page);
    const apart =
      !previous ||
      next.key !== kind?.key ||
      one.settings.ownSheet ||
      previous.settings.ownSheet ||
      (ticket.newSheet.documents && one.document !== previous.document);
    if (apart) close();
    kind = next;
    pages.push(page);
    previous = one;
  }
  close();
  return runs;
}

function asRead(page: RoutedPage, ticket: Ticket, documents: readonly DocumentFacts[]): RunPage {
  const { width, height } = documents[page.document - 1]?.pages[page.page - 1] as PageFacts;
  const rotate = page.settings.rotate ?? ticket.documents[page.document - 1]?.rotate ?? 0;
  const { document, page: number, route, settings } = page;
  return rotate % 180 === 0
    ? { document, page: number, route, settings, width, height }
    : { document, page: number, route, settings, width: height, height: width };
}

/** Pages of one route and one size are of one kind; found once, since a job has few of them and many pages. */
function kindFinder(printer: Printer): (page: RunPage) => Kind {
  const bySettings = new Map<PageSettings, Map<string, Kind>>();
  return (page) => {
    const { settings } = page;
    let bySize = bySettings.get(settings);
    if (!bySize) bySettings.set(settings, (bySize = new Map<string, Kind>()));
    // A wanted size is the same for pages of every size, so these fall together.
    const size = settings.paper.size === 'as-page' ? `${page.width} ${page.height}` : '';
    let kind = bySize.get(size);
    if (!kind) bySize.set(size, (kind = makeKind(page, printer)));
    return kind;
  };
}

function makeKind(page: RunPage, printer: Printer): Kind {
  const { settings } = page;
  const paper = paperFor(page);
  const tray = chooseTray(printer, settings.tray, paper.name, settings.paper.type);
  const { sides, layout } = settings;
  const key = JSON.stringify([tray, paper.name, settings.paper.type, settings.paper.orientation, sides, layout]);
  return { paper, tray, sides, key };
}

function paperFor(page: RunPage): NamedSize {
  const { size } = page.settings.paper;
  if (size === 'as-page') return matchSize(page.width, page.height);
  const measure = readSizeName(size);
  if (!measure) {
    throw new TicketError('paper.size', `"${size}" is not a PWG 5101.1 size name`, 'write one like "iso_a4_210x297mm"');
  }
  return { name: size, ...measure };
}
