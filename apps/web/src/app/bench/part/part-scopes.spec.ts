import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import type { BenchState } from '../../state/bench.state';
import { aDocument, aPrinter } from '../../../stubs/records';
import { partQuestion } from './part-scopes';

const A4 = { width: 595.276, height: 841.89 };
const RECTANGLE = { left: 10, top: 20, width: 100, height: 50 };

function benchWith(settings: object): BenchState {
  const documents = [aDocument([A4, A4, A4], { id: 'a', name: 'report.pdf' })];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a' }], tray: 'tray-1', ...settings });
  const profile = profileForTicket(ticket, documents);
  const made = plan(ticket, documents, profile);
  return { ticket, documents, printer: aPrinter(profile), plan: made, trouble: null } as unknown as BenchState;
}
const drawn = (scope = 0) => ({ rectangle: RECTANGLE, scope });

test('of a document: all its pages, or the chosen ones alone', () => {
  const bench = benchWith({});
  const question = partQuestion({ document: 0, pages: [{ document: 1, page: 2 }] }, bench)!;
  expect(question.data.scopes.map(({ said, pages }) => [said, pages.map(({ page }) => page)])).toEqual([
    ['all pages of report', [1, 2, 3]],
    ['page 2 alone', [2]],
  ]);
  expect(question.data.rectangle).toEqual({ left: 0, top: 0, width: 210, height: 297 });
  expect(question.answered(drawn(0), bench)?.documents[0]?.part).toEqual(RECTANGLE);
  const routed = question.answered(drawn(1), bench);
  expect(routed?.documents[0]?.part).toBe('whole');
  expect(routed?.routes).toEqual([{ document: 1, pages: '2', part: RECTANGLE }]);
});

test('what was changed while it was drawn stays changed', () => {
  const bench = benchWith({});
  const question = partQuestion({ document: 0 }, bench)!;
  const later = { ...bench, ticket: { ...bench.ticket!, copies: 7 } };
  expect(question.answered(drawn(), later)).toMatchObject({ copies: 7, documents: [{ part: RECTANGLE }] });
});

test('a document or a route that went meanwhile takes nothing', () => {
  const bench = benchWith({ routes: [{ pages: '2', tray: 'tray-1', color: 'monochrome' }] });
  const ticket = bench.ticket!;
  const ofDocument = partQuestion({ document: 0 }, bench)!;
  const replaced = { ...ticket, documents: [{ ...ticket.documents[0]!, file: 'other' }] };
  expect(ofDocument.answered(drawn(), { ...bench, ticket: replaced })).toBeNull();
  const ofRoute = partQuestion({ route: 0 }, bench)!;
  expect(ofRoute.data.scopes.map(({ said }) => said)).toEqual(['the pages of route 1']);
  expect(ofRoute.answered(drawn(), bench)?.routes[0]?.part).toEqual(RECTANGLE);
  expect(ofRoute.answered(drawn(), { ...bench, ticket: { ...ticket, routes: [] } })).toBeNull();
  expect(ofRoute.answered(drawn(), { ...bench, ticket: null })).toBeNull();
});

test('nothing is asked where nothing can be seen', () => {
  expect(partQuestion({ document: 0 }, { ...benchWith({}), plan: null })).toBeNull();
  expect(partQuestion({ route: 3 }, benchWith({}))).toBeNull();
});
