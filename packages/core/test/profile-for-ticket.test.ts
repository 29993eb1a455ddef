import { plan, profileForTicket, type DocumentFacts } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { A3, A4, LETTER, turned } from './jobs';

const MIXED: DocumentFacts = { name: 'mixed.pdf', pages: [A4, turned(A3), LETTER, A4] };

const profileOf = (settings: object) => {
  const ticket = readTicket({ version: 1, documents: [{ file: 'mixed.pdf' }], ...settings });
  const profile = profileForTicket(ticket, [MIXED]);
  return { profile, plan: plan(ticket, [MIXED], profile) };
};

const trays = ({ profile }: ReturnType<typeof profileOf>): [string, string, string | null][] =>
  profile.trays.map(({ id, size, type }) => [id, size, type]);

test('every tray the ticket names, holding what is asked of it, and one of each other size', () => {
  const made = profileOf({ routes: [{ pages: '1', tray: 'tray-7' }] });
  expect(trays(made)).toEqual([
    ['tray-7', 'iso_a4_210x297mm', null],
    ['tray-1', 'iso_a3_297x420mm', null],
    ['tray-2', 'na_letter_8.5x11in', null],
  ]);
  expect(made.plan.checks).toEqual([]);
  expect(made.plan.sheets.map(({ tray }) => tray)).toEqual(['tray-7', 'tray-1', 'tray-2', 'tray-7']);
});

test('numbers given to trays of its own keep clear of those the ticket names', () => {
  const made = profileOf({ routes: [{ pages: '4', tray: 'tray-1' }] });
  expect(trays(made).map(([id]) => id)).toEqual(['tray-1', 'tray-2', 'tray-3']);
});

test('a wanted type of paper is held', () => {
  const made = profileOf({ paper: { type: 'cardstock' } });
  expect(trays(made).map(([, , type]) => type)).toEqual(['cardstock', 'cardstock', 'cardstock']);
  expect(made.plan.checks).toEqual([]);
});

test('is a printer profile by the schema: duplex, no margin', () => {
  const { profile } = profileOf({ sides: 'two-sided' });
  expect(readPrinter(profile)).toEqual(profile);
  expect([profile.duplex, profile.margin]).toEqual([true, 0]);
});

test('a ticket whose only document has a mixed job planned two-sided begins a run at each size', () => {
  const { plan: made } = profileOf({ sides: 'two-sided' });
  expect(made.sheets.map(({ back }) => back?.cells.length)).toEqual([0, 0, 0, 0]);
  expect(made.checks.map(({ code }) => code)).toEqual(['blank-back']);
});
