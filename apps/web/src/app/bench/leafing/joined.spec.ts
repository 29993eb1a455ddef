import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { joinedPlaces, joinedSheets, placeOnPage, tileOf } from './joined';
import { openingsOf } from './openings';

const A4 = { width: 595.276, height: 841.89 };

function planOf(count: number, settings: object) {
  const documents = [{ name: 'a.pdf', pages: Array.from({ length: count }, () => A4) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], ...settings });
  const printer = profileForTicket(ticket, documents);
  return { made: plan(ticket, documents, printer), printer };
}
const POSTER = { layout: { kind: 'tiles', columns: 2, rows: 2, overlap: 0 } };

test('the sheets of each page belong together, page by page', () => {
  const { made } = planOf(2, POSTER);
  expect(joinedSheets(made).map((group) => group.map(({ index }) => index))).toEqual([
    [1, 2, 3, 4],
    [5, 6, 7, 8],
  ]);
});

test('pages that are printed as they are, or twice and cut off alike, are not joined', () => {
  expect(joinedSheets(planOf(3, {}).made)).toEqual([]);
  const twice = { documents: [{ file: 'a.pdf', pages: '1 x3' }], scale: { mode: 'percent', percent: 150 } };
  expect(joinedSheets(planOf(1, twice).made)).toEqual([]);
});

test('each lies where the one before it ends', () => {
  const { made } = planOf(1, POSTER);
  const places = made.sheets.map((sheet) => placeOnPage(tileOf(sheet)!));
  expect(places.map(({ x, y }) => [Math.round(x) + 0, Math.round(y) + 0])).toEqual([
    [0, 842],
    [595, 842],
    [0, 0],
    [595, 0],
  ]);
});

test('leafing through shows each page joined; what lies before and after is leafed through as ever', () => {
  const routes = [{ pages: '2', ...POSTER }];
  const { made, printer } = planOf(3, { tray: 'tray-1', routes });
  const openings = openingsOf(made, printer, 'left');
  expect(openings.map(({ joined }) => joined?.length ?? null)).toEqual([null, null, 4, null, null]);
});

test('each says which one of how many it is, page by page', () => {
  const { made } = planOf(2, POSTER);
  expect([...joinedPlaces(made)]).toEqual(
    [1, 2, 3, 4, 5, 6, 7, 8].map((index) => [index, `${((index - 1) % 4) + 1} of 4`]),
  );
  expect(joinedPlaces(planOf(3, {}).made).size).toBe(0);
});
