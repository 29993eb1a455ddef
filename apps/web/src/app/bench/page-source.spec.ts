import type { JobDocument } from '@foglio/api';
import { readTicket } from '@foglio/core/validate';
import type { BenchState } from '../state/bench.state';
import { aPrinter } from '../../stubs/records';
import { pageSourceOf } from './page-source';

const document = (id: string, read: number): JobDocument => ({
  id,
  name: `${id}.pdf`,
  pages: [{ width: 595, height: 842 }],
  outline: [],
  about: {},
  remarks: [],
  sha256: '',
  read,
});
/** All of the state that the source is made from. */
const stateWith = (change: Partial<BenchState>): Parameters<typeof pageSourceOf>[0] => ({
  trouble: null,
  ticket: readTicket({ version: 1, documents: [{ file: 'a', rotate: 90 }] }),
  documents: [document('a', 0)],
  printer: null,
  ...change,
});

test('pages come from their files, turned as the ticket says', () => {
  expect(pageSourceOf(stateWith({}))(1, 1)).toEqual({
    url: '/api/files/a/content',
    turn: 90,
    grey: false,
    size: { width: 842, height: 595 },
  });
  expect(pageSourceOf(stateWith({}))(2, 1)).toEqual({ url: '', turn: 0, grey: false, size: null });
});

test('while the ticket cannot be planned the pages of before stay, also when facts come in; not those of another job', () => {
  pageSourceOf(stateWith({}));
  const trouble = {
    place: 'documents[0].pages',
    problem: 'not there',
    repair: 'another',
    position: 0,
    length: 1,
    replacement: null,
  };
  const later = stateWith({ trouble, documents: [document('a', 1)] });
  expect(pageSourceOf(later)(1, 1)).toEqual({
    url: '/api/files/a/content',
    turn: 90,
    grey: false,
    size: { width: 842, height: 595 },
  });
  expect(pageSourceOf(stateWith({ trouble, documents: [document('b', 1)] }))(1, 1)).toEqual({
    url: '',
    turn: 0,
    grey: false,
    size: null,
  });
});

test('before it is told that a route’s pages cannot be read, the pages of before stay too', () => {
  const before = pageSourceOf(stateWith({}));
  const routes = [
    { pages: '1-', tray: 'tray-1' },
    { document: 1, pages: '99', tray: 'tray-1' },
  ];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a' }], routes });
  expect(pageSourceOf(stateWith({ ticket }))).toBe(before);
});

test('pages are grey by the ticket, by a route, or by a printer that has no colour', () => {
  const pages = [1, 2, 3];
  const greyOf = (settings: object, color = true): boolean[] => {
    const a = { ...document('a', 0), pages: pages.map(() => ({ width: 595, height: 842 })) };
    const ticket = readTicket({ version: 1, documents: [{ file: 'a' }], ...settings });
    const profile = { name: 'P', color, trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
    const source = pageSourceOf(stateWith({ ticket, documents: [a], printer: aPrinter(profile) }));
    return pages.map((page) => source(1, page).grey);
  };
  expect(greyOf({})).toEqual([false, false, false]);
  expect(greyOf({ color: 'monochrome' })).toEqual([true, true, true]);
  expect(greyOf({ routes: [{ pages: '2', color: 'monochrome' }] })).toEqual([false, true, false]);
  expect(greyOf({ color: 'monochrome', routes: [{ pages: '2', color: 'auto' }] })).toEqual([true, false, true]);
  expect(greyOf({}, false)).toEqual([true, true, true]);
});
