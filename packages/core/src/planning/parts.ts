import type { Box, Extent } from '../paper/box';
import { mmToPoints } from '../paper/sizes';
import { overlap, turnBox } from '../paper/turn-box';
import type { DocumentFacts } from '../pages/facts';
import type { PageRules } from '../ticket/page-rules';
import type { Part, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { BLANK, type Selected } from './select';

/** Left free round the content, in millimetres (model, Pages and pieces, Part). */
const ROUND_CONTENT = 3;

/** A page of some document, and the route that rules it: its index from 0, or -1. */
interface Ruled {
  readonly document: number;
  readonly page: number;
  readonly route: number;
}

/**
 * What of a page is printed, on the page as read, in points; null: all of it. @param size of the page, as read
 * @throws TicketError where nothing of the page is in it
 */
export type PartFinder = (page: Ruled, size: Extent) => Box | null;

/**
 * Finds the parts of pages (model, Pages and pieces, Part). Each document's or route's part is a group of its own: trimmed
 * pages of one group and one size are trimmed alike, so that none jumps.
 *
 * @throws TicketError where a page is to be trimmed whose content is not known yet
 */
export function partFinder(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  selected: readonly Selected[],
  rules: PageRules,
): PartFinder | null {
  const ofRoutes = ticket.routes.map(({ part }) => part);
  if ([...ticket.documents.map(({ part }) => part), ...ofRoutes].every((part) => (part ?? 'whole') === 'whole')) {
    return null;
  }
  const partOf = ({ document, route }: Omit<Ruled, 'page'>): { readonly place: string; readonly part: Part } => {
    const own = ofRoutes[route];
    if (own !== undefined) return { place: `routes[${route}].part`, part: own };
    return { place: `documents[${document - 1}].part`, part: ticket.documents[document - 1]?.part ?? 'whole' };
  };
  const contents = contentsOf(selected, documents, rules, partOf);
  return (page, size) => {
    const { place, part } = partOf(page);
    if (part === 'whole') return null;
    if (part === 'content') return contents.get(groupOf(place, size)) ?? null;
    return rectangleOn(page, size, part, place);
  };
}

const groupOf = (place: string, { width, height }: Extent): string => `${place} ${width} ${height}`;

/** A rectangle cut to the page. */
function rectangleOn({ document, page }: Ruled, size: Extent, part: Exclude<Part, string>, place: string): Box {
  const [left, top, width, height] = [part.left, part.top, part.width, part.height].map(mmToPoints) as [
    number,
    number,
    number,
    number,
  ];
  const whole = { x: 0, y: 0, ...size };
  const box = overlap({ x: left, y: size.height - top - height, width, height }, whole);
  if (box.width > 0 && box.height > 0) return box;
  const problem = `nothing of page ${page} of document ${document} is in the part that is printed`;
  throw new TicketError(place, problem, 'move the part onto the page, or give these pages a route of their own');
}

/** For each group that is trimmed: what holds the content of all its chosen pages; where all are blank, nothing. */
function contentsOf(
  selected: readonly Selected[],
  documents: readonly DocumentFacts[],
  rules: PageRules,
  partOf: (page: Omit<Ruled, 'page'>) => { readonly place: string; readonly part: Part },
): Map<string, Box> {
  const held = new Map<string, { readonly size: Extent; box: Box }>();
  for (const { document, pages } of selected) {
    for (const page of pages) {
      if (page === BLANK) continue;
      const { place, part } = partOf({ document, route: rules.routeOf(document, page) });
      if (part !== 'content') continue;
      const facts = documents[document - 1]?.pages[page - 1];
      if (!facts) continue;
      if (facts.content === undefined) {
        const problem = `what is on page ${page} of document ${document} is not known yet`;
        throw new TicketError(place, problem, 'wait until the pages are looked through');
      }
      if (facts.content === null) continue;
      const [x, y, width, height] = facts.content;
      const degrees = rules.rotationOf(document, page);
      const box = roundedOut(turnBox({ x, y, width, height }, facts, degrees));
      const size = degrees % 180 === 0 ? facts : { width: facts.height, height: facts.width };
      const key = groupOf(place, size);
      const before = held.get(key);
      held.set(key, { size, box: before ? together(before.box, box) : box });
    }
  }
  const round = mmToPoints(ROUND_CONTENT);
  return new Map(
    [...held].map(([key, { size, box }]) => {
      const wider = {
        x: box.x - round,
        y: box.y - round,
        width: box.width + 2 * round,
        height: box.height + 2 * round,
      };
      return [key, overlap(wider, { x: 0, y: 0, width: size.width, height: size.height })];
    }),
  );
}

/** To whole points, so that another program's last digits trim nothing else. */
function roundedOut({ x, y, width, height }: Box): Box {
  const [left, bottom] = [Math.floor(x), Math.floor(y)];
  return { x: left, y: bottom, width: Math.ceil(x + width) - left, height: Math.ceil(y + height) - bottom };
}

function together(one: Box, other: Box): Box {
  const x = Math.min(one.x, other.x);
  const y = Math.min(one.y, other.y);
  return {
    x,
    y,
    width: Math.max(one.x + one.width, other.x + other.width) - x,
    height: Math.max(one.y + one.height, other.y + other.height) - y,
  };
}
