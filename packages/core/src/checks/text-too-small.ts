import type { Check, Repair } from '../plan/plan';
import type { DocumentFacts } from '../pages/facts';
import type { LaidOutRun } from '../planning/layout';
import type { GridLayout, Ticket } from '../ticket/ticket';
import { gridDefaults } from '../settings/layout';
import { smallText } from '../tally/legibility';
import { uniquePages, type CheckContext, type CheckRule } from './context';
import { firstThatHelps, mapRoutes, withRepair } from './repair';
import { namePages } from './words';

/** Smaller than this, in points, is hard to read on paper (model, Checks). */
const SMALLEST_READABLE = 6;

type Count = GridLayout['pagesPerSide'];
const COUNTS: readonly Count[] = [9, 8, 6, 4, 2, 1];

/** The smallest text, as printed, is under 6 pt. */
export const textTooSmall: CheckRule = (context) => {
  const check = findSmallText(context);
  return check ? [withRepair(check, repairOf(context))] : [];
};

type Finder = Pick<CheckContext, 'plan' | 'laidOut' | 'documents'>;

function findSmallText({ plan, laidOut, documents }: Finder): Check | null {
  if (isLargeEnough(laidOut, documents, SMALLEST_READABLE)) return null;
  const found = smallText(plan.sheets, documents, SMALLEST_READABLE);
  if (found.length === 0) return null;
  const smallest = Math.min(...found.map(({ points }) => points));
  const pages = uniquePages(found.map(({ document, page }) => ({ document, page })));
  const sheets = [...new Set(found.map(({ sheet }) => sheet))];
  const message = `Text on ${namePages(pages, documents.length)} prints as small as ${smallest.toFixed(1)} pt; under ${SMALLEST_READABLE} pt is hard to read.`;
  return { code: 'text-too-small', level: 'caution', message, sheets, pages };
}

/**
 * Whether no text can come out under a size, seen from the smallest text of all pages and the smallest scale of all places:
 * true of most plans, and found without going through their cells. False says nothing.
 */
function isLargeEnough(laidOut: readonly LaidOutRun[], documents: readonly DocumentFacts[], points: number): boolean {
  let text = Infinity;
  for (const { pages } of documents) {
    for (const { smallestText } of pages) if (smallestText && smallestText < text) text = smallestText;
  }
  let scale = Infinity;
  for (const { places } of laidOut) {
    for (const ofStretch of places) for (const { placement } of ofStretch) scale = Math.min(scale, placement.scale);
  }
  return text * scale >= points;
}

/** As many pages a side as can still be read. */
function repairOf(context: CheckContext): Repair | null {
  const { ticket } = context;
  const now = Math.max(...context.runs.map((run) => pagesOnSide(run.settings.layout)));
  const fewer = COUNTS.filter((count) => count < now).map((count) => ({
    label: count === 1 ? 'Print one page a side' : `Print ${count} pages a side`,
    patch: atMost(ticket, count),
  }));
  return firstThatHelps(context, (changed) => findSmallText(changed) !== null, fewer);
}

const pagesOnSide = (layout: Ticket['layout']): number =>
  layout.kind !== 'grid'
    ? layout.kind === 'booklet'
      ? 2
      : 1
    : layout.columns && layout.rows
      ? layout.columns * layout.rows
      : layout.pagesPerSide;

/** Every layout with more pages a side than that is made a grid of so many; the rest of a grid stays. */
function atMost(ticket: Ticket, count: Count): Partial<Ticket> {
  const fewer = { kind: 'grid', pagesPerSide: count, columns: null, rows: null } as const;
  const { layout } = ticket;
  const grid = layout.kind === 'grid' ? { ...layout, ...fewer } : { ...gridDefaults, ...fewer };
  const routes = mapRoutes(ticket, ({ layout: own }) => {
    if (!own) return {};
    return { layout: own.kind === 'grid' ? { ...own, ...fewer } : fewer };
  });
  return { ...(pagesOnSide(layout) > count ? { layout: grid } : {}), ...(routes.length > 0 ? { routes } : {}) };
}
