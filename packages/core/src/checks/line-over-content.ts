import { eachSide } from '../plan/each-side';
import { boxOfText } from '../planning/lines';
import type { Box } from '../paper/box';
import type { Check, PageName, Repair } from '../plan/plan';
import { uniquePages, type CheckContext, type CheckRule } from './context';
import { contentOf, type Finder } from './outside-printable';
import { firstThatHelps, withRepair } from './repair';
import { namePages } from './words';

/** Points that a line may reach over what is only the edge of something. */
const SLACK = 0.5;

/** A line of text at the head or foot would lie over what is on the page. */
export const lineOverContent: CheckRule = (context) => {
  const check = findCovered(context);
  return check ? [withRepair(check, repairOf(context))] : [];
};

function findCovered(context: Finder): Check | null {
  const sheets = new Set<number>();
  const pages: PageName[] = [];
  eachSide(context.plan.sheets, ({ cells, texts = [] }, sheet) => {
    for (const cell of cells) {
      const content = texts.length === 0 ? null : contentOf(cell, context);
      if (!content || !texts.some((text) => meet(boxOfText(text), content))) continue;
      sheets.add(sheet.index);
      pages.push({ document: cell.document, page: cell.page });
    }
  });
  if (pages.length === 0) return null;
  const unique = uniquePages(pages);
  const message = `A line of text lies over the content of ${namePages(unique, context.documents.length)}.`;
  return { code: 'line-over-content', level: 'caution', message, sheets: [...sheets], pages: unique };
}

const meet = (one: Box, other: Box): boolean =>
  one.x + one.width > other.x + SLACK &&
  other.x + other.width > one.x + SLACK &&
  one.y + one.height > other.y + SLACK &&
  other.y + other.height > one.y + SLACK;

/** Pages made smaller to leave room for the lines. */
function repairOf(context: CheckContext): Repair | null {
  const patches = [8, 12, 20].map((margin) => ({
    label: `Fit the pages within a margin of ${margin} mm`,
    patch: {
      margin: Math.max(margin, context.ticket.margin),
      scale: { ...context.ticket.scale, mode: 'fit' as const },
    },
  }));
  return firstThatHelps(context, (changed) => findCovered(changed) !== null, patches);
}
