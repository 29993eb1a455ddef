import { saySize } from '../paper/sizes';
import type { Sheet } from '../plan/plan';
import { indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { finishingsOf, holdsTogether, leaveOut, stapledParts } from './finishing';
import { firstThatHelps, withRepair } from './repair';
import { listOf } from './words';

/** Sheets of different sizes are stapled together. */
export const mixedSizesStapled: CheckRule = (context) => {
  const { plan, ticket } = context;
  const [first] = mixedParts(context);
  if (!first) return [];
  const sizes = sizesOf(first);
  const message = `Sheets of different sizes are stapled together: ${listOf(sizes.map(saySize))}.`;
  const others = first.filter(({ paper }) => paper.size !== sizes[0]);
  const routes = ticket.routes.map(({ paper: _, ...route }) => route) as typeof ticket.routes;
  const repair = firstThatHelps(context, (changed) => mixedParts(changed).length > 0, [
    { label: `Print all on ${saySize(sizes[0]!)}`, patch: { paper: { ...ticket.paper, size: sizes[0]! }, routes } },
    leaveOut(ticket, finishingsOf(plan).filter(holdsTogether)),
  ]);
  const pages = pagesOn(others);
  return [
    withRepair({ code: 'mixed-sizes-stapled', level: 'caution', message, sheets: indexesOf(others), pages }, repair),
  ];
};

/** The commonest first. */
function sizesOf(sheets: readonly Sheet[]): string[] {
  const counts = new Map<string, number>();
  for (const { paper } of sheets) counts.set(paper.size, (counts.get(paper.size) ?? 0) + 1);
  return [...counts].sort(([, one], [, other]) => other - one).map(([size]) => size);
}

const mixedParts = ({ plan }: Pick<CheckContext, 'plan'>) =>
  stapledParts(plan).filter((part) => sizesOf(part).length > 1);
