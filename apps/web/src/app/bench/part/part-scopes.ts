import { pointsToMm, routePages, type PageName, type Ticket } from '@foglio/core';
import { nameWithoutKind } from '@foglio/sentence';
import type { BenchState } from '../../state/bench.state';
import { pageSourceOf } from '../page-source';
import { rulesOf } from '../rules-of';
import type { DrawnPart, PartData, PartPage, PartScope } from './part-dialog';
import type { Rectangle } from './rectangle';

/** Whose part is drawn: that of a document or of a route, by their index from 0, or that of some pages of a document. */
export type PartOf = { readonly document: number; readonly pages?: readonly PageName[] } | { readonly route: number };

/** What is asked of the person, and what the answer makes of a ticket. */
export interface PartQuestion {
  readonly data: PartData;
  /** The ticket as it then is may be another than the one that was asked about. Null: what was asked about is gone. */
  readonly answered: (drawn: DrawnPart, now: Pick<BenchState, 'ticket' | 'documents'>) => Ticket | null;
}

/** Null where none of its pages is printed. */
export function partQuestion(of: PartOf, bench: BenchState): PartQuestion | null {
  const { plan, ticket, documents } = bench;
  if (!plan || !ticket || bench.trouble) return null;
  const rules = rulesOf(ticket, documents);
  if (!rules) return null;
  const { routeOf } = rules;
  const source = pageSourceOf(bench);
  const printed = uniquePages(plan.sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])]));
  const shown = (pages: readonly PageName[]): PartPage[] =>
    pages.flatMap(({ document, page }) => {
      const { url, turn, size } = source(document, page);
      return size && url !== '' ? [{ page, url, turn, ...size }] : [];
    });
  const scopes: PartScope[] = [];
  const add = (said: string, pages: readonly PageName[]): void => {
    const found = shown(pages);
    if (found.length > 0) scopes.push({ said, pages: found });
  };
  if ('route' in of) {
    add(
      `the pages of route ${of.route + 1}`,
      printed.filter(({ document, page }) => routeOf(document, page) === of.route),
    );
  } else {
    const name = nameWithoutKind(documents[of.document]?.name ?? '');
    add(
      `all pages of ${name}`,
      printed.filter(({ document }) => document === of.document + 1),
    );
    const some = (of.pages ?? []).filter(({ document }) => document === of.document + 1);
    if (some.length > 0)
      add(some.length === 1 ? `page ${some[0]?.page} alone` : `the ${some.length} chosen pages alone`, some);
  }
  const first = scopes[0]?.pages[0];
  if (!first) return null;
  const now = 'route' in of ? ticket.routes[of.route]?.part : ticket.documents[of.document]?.part;
  return {
    data: { scopes, rectangle: typeof now === 'object' ? now : wholeOf(first) },
    answered: (drawn, later) => (later.ticket ? withPart(of, drawn, ticket, later.ticket, later.documents) : null),
  };
}

function withPart(
  of: PartOf,
  { rectangle: part, scope }: DrawnPart,
  asked: Ticket,
  now: Ticket,
  documents: BenchState['documents'],
): Ticket | null {
  if ('route' in of) {
    // Routes are told by what they are about: one may have been taken away meanwhile.
    if (now.routes[of.route]?.pages !== asked.routes[of.route]?.pages) return null;
    return { ...now, routes: now.routes.map((one, at) => (at === of.route ? { ...one, part } : one)) };
  }
  if (now.documents[of.document]?.file !== asked.documents[of.document]?.file) return null;
  if (scope === 1) return routePages(now, documents, of.pages ?? [], { part });
  return { ...now, documents: now.documents.map((one, at) => (at === of.document ? { ...one, part } : one)) };
}

function uniquePages(pages: readonly PageName[]): PageName[] {
  const seen = new Set<string>();
  return pages.filter(({ document, page }) => {
    const key = `${document} ${page}`;
    return !seen.has(key) && seen.add(key) !== undefined;
  });
}

/** What one begins with: all of the page, to be drawn over. */
const wholeOf = ({ width, height }: PartPage): Rectangle => ({
  left: 0,
  top: 0,
  width: Math.round(pointsToMm(width)),
  height: Math.round(pointsToMm(height)),
});
