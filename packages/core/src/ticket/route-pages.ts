import type { DocumentFacts } from '../pages/facts';
import { selectPages } from '../pages/selection';
import { SelectionError } from '../pages/selection-error';
import { writeTerms } from '../pages/selection-write';
import { byPosition } from './by-position';
import type { Route, Ticket } from './ticket';

export interface PageToRoute {
  /** Both counted from 1. */
  readonly document: number;
  readonly page: number;
}

/** What a route says of its pages, without which pages they are. */
type Rule = Omit<Route, 'pages' | 'document' | 'name'>;

/** What is to be different for some pages; null takes the route's word on it away, so that the ticket's own holds. */
export type RouteChange = { readonly [Part in keyof Rule]?: Rule[Part] | null };

/**
 * The ticket with these pages sent to a tray, printed on other sides, or otherwise changed. Whatever else a route said of
 * a page stays. Pages that were not named keep the route they had; a rule such as "odd" is kept as a rule, with the pages
 * left out of it. A document numbered by labels is numbered by position after it.
 */
export function routePages(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  pages: readonly PageToRoute[],
  change: RouteChange,
): Ticket {
  const touched = new Set(pages.map(({ document }) => document));
  const split = { ...ticket, routes: splitByDocument(ticket, documents, touched) };
  const placed = [...touched].reduce((one, document) => byPosition(one, documents, document), split);
  let routes: Route[] = placed.routes;
  const byDocument = new Map<number, number[]>();
  for (const { document, page } of pages) {
    const numbers = byDocument.get(document);
    if (numbers) numbers.push(page);
    else byDocument.set(document, [page]);
  }
  for (const [document, numbers] of byDocument) {
    const facts = documents[document - 1];
    if (facts) routes = routeInDocument(routes, document, facts, [...new Set(numbers)], placed, change);
  }
  return { ...placed, routes };
}

function routeInDocument(
  routes: readonly Route[],
  document: number,
  facts: DocumentFacts,
  numbers: readonly number[],
  ticket: Ticket,
  change: RouteChange,
): Route[] {
  const entry = ticket.documents[document - 1];
  const read = (route: Route): number[] => (concerns(route, document) ? readPages(route.pages, facts, entry) : []);
  const named = new Map(routes.map((route) => [route, new Set(read(route))]));
  const rulerOf = (page: number): Route | undefined => routes.find((route) => named.get(route)?.has(page));
  const byRule = new Map<string, { rule: Rule; pages: number[] }>();
  for (const page of numbers) {
    const rule = changedRule(rulerOf(page), change);
    const key = keyOf(rule);
    const entry = byRule.get(key) ?? { rule, pages: [] };
    entry.pages.push(page);
    byRule.set(key, entry);
  }
  const last = facts.pages.length;
  const left = routes.flatMap((route) => {
    const taken = numbers.filter((page) => named.get(route)?.has(page));
    return taken.length === 0 ? [route] : without(route, read(route), new Set(taken), last);
  });
  return [...byRule.values()].reduce((all, { rule, pages }) => withPages(all, rule, pages, document, read, last), left);
}

/** The rule of a page after the change; it may come to nothing. */
function changedRule(route: Route | undefined, change: RouteChange): Rule {
  const own: Rule = route ? ruleOfRoute(route) : {};
  const laid = {
    ...own,
    ...change,
    // Parts of these that the change leaves out stay as they were.
    ...(own.paper && change.paper ? { paper: { ...own.paper, ...change.paper } } : {}),
    ...(own.scale && change.scale ? { scale: { ...own.scale, ...change.scale } } : {}),
  };
  return Object.fromEntries(Object.entries(laid).filter(([, value]) => value !== null && value !== undefined));
}

function without(route: Route, named: readonly number[], taken: ReadonlySet<number>, last: number): Route[] {
  if (isRule(route.pages)) return [{ ...route, pages: `(${route.pages}) but ${writeTerms(sorted([...taken]), last)}` }];
  const remaining = named.filter((page) => !taken.has(page));
  return remaining.length === 0 ? [] : [{ ...route, pages: writeTerms(sorted([...new Set(remaining)]), last) }];
}

function withPages(
  routes: readonly Route[],
  rule: Rule,
  pages: readonly number[],
  document: number,
  read: (route: Route) => number[],
  last: number,
): Route[] {
  if (Object.keys(rule).length === 0) return [...routes];
  const same = routes.findIndex(
    (route) => concerns(route, document) && !isRule(route.pages) && keyOf(ruleOfRoute(route)) === keyOf(rule),
  );
  const target = routes[same];
  if (!target) return [...routes, { document, pages: writeTerms(sorted(pages), last), ...rule }];
  const all = sorted([...new Set([...read(target), ...pages])]);
  return routes.map((route) => (route === target ? { ...route, pages: writeTerms(all, last) } : route));
}

/** A route for all documents cannot lose pages of one alone, so it first becomes a route for each. */
function splitByDocument(ticket: Ticket, documents: readonly DocumentFacts[], touched: ReadonlySet<number>): Route[] {
  if (documents.length === 1 || touched.size === 0) return [...ticket.routes];
  return ticket.routes.flatMap((route) => {
    if (route.document !== undefined) return [route];
    return documents.flatMap((facts, index) => {
      const pages = readPages(route.pages, facts, ticket.documents[index]);
      return pages.length === 0
        ? []
        : [{ ...route, document: index + 1, pages: writeTerms(sorted([...new Set(pages)]), facts.pages.length) }];
    });
  });
}

/** A text that cannot be read names nothing here; the planner says what is wrong with it. */
function readPages(text: string, facts: DocumentFacts, entry: Ticket['documents'][number] | undefined): number[] {
  try {
    return selectPages(text, {
      facts,
      rotate: entry?.rotate ?? 0,
      numbering: entry?.numbering ?? 'position',
      forgiving: true,
    });
  } catch (error) {
    if (error instanceof SelectionError) return [];
    throw error;
  }
}

function ruleOfRoute({ pages: _pages, document: _document, name: _name, ...rule }: Route): Rule {
  return rule;
}

const concerns = (route: Route, document: number): boolean =>
  route.document === undefined || route.document === document;
const isRule = (text: string): boolean => /[a-z(]/i.test(text);
const keyOf = (rule: Rule): string => JSON.stringify(Object.entries(rule).sort(([a], [b]) => (a < b ? -1 : 1)));
const sorted = (pages: readonly number[]): number[] => [...pages].sort((a, b) => a - b);
