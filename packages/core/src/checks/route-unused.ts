import { routePagesIn } from '../ticket/page-rules';
import type { Check } from '../plan/plan';
import { pagesOf } from '../planning/run';
import type { CheckRule } from './context';

/** A route catches no printed page, or an earlier route takes all it names. */
export const routeUnused: CheckRule = ({ ticket, documents, runs, rules }) => {
  if (ticket.routes.length === 0) return [];
  const used = new Uint8Array(ticket.routes.length);
  for (const run of runs) for (const { route } of run.stretches) if (route >= 0) used[route] = 1;
  if (used.every((one) => one === 1)) return [];
  const printed = documents.map(() => new Set<number>());
  for (const { document, page } of runs.flatMap(pagesOf)) printed[document - 1]?.add(page);
  return ticket.routes.flatMap((route, index): Check[] => {
    if (used[index] === 1) return [];
    const pages = documents.flatMap((facts, position) =>
      routePagesIn(ticket, index, facts, position + 1)
        .filter((page) => printed[position]?.has(page))
        .map((page) => ({ document: position + 1, page })),
    );
    const first = pages[0];
    const earlier = first ? ticket.routes[rules.routeOf(first.document, first.page)] : undefined;
    const why = earlier ? `${nameOf(earlier)} takes all its pages first` : 'none of its pages is printed';
    const message = `The ${nameOf(route)} changes nothing: ${why}.`;
    const patch = { routes: ticket.routes.filter((other) => other !== route) };
    const repair = { label: 'Remove this route', patch };
    return [{ code: 'route-unused', level: 'note', message, sheets: [], pages, repair }];
  });
};

const nameOf = ({ name, pages }: { name?: string; pages: string }): string =>
  name ? `route “${name}”` : `route for ${shortened(pages)}`;

const shortened = (text: string): string => (text.length > 40 ? `${text.slice(0, 39)}…` : text);
