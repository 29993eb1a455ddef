import type { DocumentFacts } from '../pages/facts';
import { sectionStarts } from '../pages/outline';
import { chooseTray, type Printer } from '../printer/printer';
import { matchSize, readSizeName, type NamedSize, type Size } from '../paper/sizes';
import { OF_SHEET } from '../settings';
import type { Layout, PageSettings, Sides, Ticket } from '../ticket/ticket';
import type { Extent } from '../paper/box';
import type { PageName } from '../plan/plan';
import type { Stretch } from './route';
import { BLANK } from './select';

/** Why a run begins where it does; "start" is the first run of a job. */
export type RunCause = 'start' | 'document' | 'section' | 'own-sheet' | 'settings';

/** Consecutive pages that are printed alike, so that they may share sheets. */
export interface Run {
  /** Counted from 1. */
  readonly number: number;
  readonly cause: RunCause;
  readonly stretches: readonly Stretch[];
  readonly paper: NamedSize;
  readonly tray: string | null;
  readonly sides: Sides;
  /** Of the run's first page: what the layout of the whole run follows. */
  readonly settings: PageSettings;
}

/** The pages of a run, one after the other. */
export const pagesOf = ({ stretches }: Run): PageName[] =>
  stretches.flatMap(({ document, pages }) => (pages[0] === BLANK ? [] : pages.map((page) => ({ document, page }))));

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
  routed: readonly Stretch[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): Run[] {
  const kindOf = kindFinder(printer);
  const starts = separates(ticket).sections ? documents.map(sectionStarts) : [];
  const causeOf = causeFinder(ticket, starts);
  const runs: Run[] = [];
  let kind: Kind | null = null;
  let previous: Stretch | null = null;
  let stretches: Stretch[] = [];
  for (const stretch of routed) {
    if (stretch.isBack) {
      // On its front's sheet, whatever its own.
      stretches.push(stretch);
      continue;
    }
    for (const one of cut(stretch, starts[stretch.document - 1])) {
      const next = kindOf(one);
      const cause = previous ? (causeOf(previous, one) ?? (kind && isAlike(kind, next) ? null : 'settings')) : 'start';
      if (cause) {
        stretches = [one];
        const { paper, tray, sides } = next;
        runs.push({ number: runs.length + 1, cause, stretches, paper, tray, sides, settings: one.settings });
      } else stretches.push(one);
      kind = next;
      previous = one;
    }
  }
  return runs;
}

/** A stretch in parts, wherever a run may have to begin inside it. */
function cut(stretch: Stretch, sections: ReadonlySet<number> | undefined): readonly Stretch[] {
  const { pages, settings } = stretch;
  if (!settings.ownSheet && !sections) return [stretch];
  const parts: number[][] = [];
  for (const page of pages) {
    const part = parts.at(-1);
    if (part && !settings.ownSheet && !sections?.has(page)) part.push(page);
    else parts.push([page]);
  }
  return parts.map((part) => ({ ...stretch, pages: part }));
}

/** Where a new sheet begins, and a slip lies; where the documents take turns, or in pieces, these words mean nothing. */
export function separates({ newSheet, slips, finishEach, inTurn, pieces }: Ticket) {
  if (inTurn || pieces) return { documents: false, sections: false, slips: false };
  const bySlips = slips.between === 'documents';
  // A slip between documents can only lie between sheets, and what is stapled by itself is sheets.
  const documents = newSheet.documents || bySlips || finishEach !== 'set';
  return { documents, sections: newSheet.sections || finishEach === 'section', slips: bySlips };
}

/** Tells why two stretches must not share a sheet even where they are printed alike; null where they may. */
function causeFinder(
  ticket: Ticket,
  starts: readonly ReadonlySet<number>[],
): (previous: Stretch, next: Stretch) => RunCause | null {
  const { documents: atDocuments } = separates(ticket);
  return (previous, next) => {
    if (atDocuments && next.document !== previous.document) return 'document';
    if (starts[next.document - 1]?.has(next.pages[0] as number)) return 'section';
    if (next.settings.ownSheet || previous.settings.ownSheet) return 'own-sheet';
    return null;
  };
}

/** Pages of one route and one size are of one kind, which is found once. */
function kindFinder(printer: Printer): (stretch: Stretch) => Kind {
  const bySize = new Map<Extent, { readonly paper: NamedSize; readonly kinds: Map<PageSettings, Kind> }>();
  return ({ settings, pageSize: size }) => {
    let ofSize = bySize.get(size);
    if (!ofSize) {
      ofSize = { paper: matchSize(size.width, size.height), kinds: new Map<PageSettings, Kind>() };
      bySize.set(size, ofSize);
    }
    let kind = ofSize.kinds.get(settings);
    if (!kind) ofSize.kinds.set(settings, (kind = makeKind(settings, ofSize.paper, printer)));
    return kind;
  };
}

/** @param asPage the size nearest to the page's own */
function makeKind(settings: PageSettings, asPage: NamedSize, printer: Printer): Kind {
  const { size, type } = settings.paper;
  // That the name can be read was asked before planning.
  const paper = size === 'as-page' ? asPage : { name: size, ...(readSizeName(size) as Size) };
  const tray = chooseTray(printer, settings.tray, paper.name, type);
  return { paper, tray, sides: sidesOf(settings), settings };
}

/** What is folded, or has its backs behind, is always printed on both sides; what is joined never is. */
export function sidesOf({ layout, sides }: Pick<PageSettings, 'layout' | 'sides'>): Sides {
  if (layout.kind === 'tiles') return 'one-sided';
  return layout.kind === 'booklet' || layout.backs === 'behind' ? 'two-sided' : sides;
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
    OF_SHEET.every(({ name }) => one.settings[name] === other.settings[name]) &&
    isSameLayout(layout, other.settings.layout)
  );
}

/** Layouts are completed from the same defaults, so like ones have their fields in the same order. */
const isSameLayout = (one: Layout, other: Layout): boolean =>
  one === other || JSON.stringify(one) === JSON.stringify(other);
