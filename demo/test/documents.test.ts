import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { readDetails, readFacts } from '@foglio/pdf';
import {
  autumnProgramme,
  flyer,
  grantReturn,
  playersNotes,
  rehearsalTimetable,
  seasonContract,
  stagePlan,
} from '../src';
import { attachments, pageTexts, qpdfComplaints } from '../../packages/pdf/test/poppler';

const UPPER_OFFICE = readPrinter(JSON.parse(readFileSync(join(__dirname, '../printers/upper-office.json'), 'utf8')));

const planOf = async (pdf: Buffer, settings: object = {}) => {
  const bytes = new Uint8Array(pdf);
  const { pages, outline } = await readFacts(bytes);
  const known = [...pages];
  await readDetails(bytes, 'all', (page, details) => void (known[page - 1] = { ...known[page - 1]!, ...details }));
  const facts = { name: 'demo.pdf', pages: known, outline };
  const ticket = readTicket({ version: 1, documents: [{ file: 'demo.pdf' }], ...settings });
  return plan(ticket, [facts], UPPER_OFFICE);
};

test('the season contract: a letter, clauses, signatures on 6 and 9, schedules; 14 pages of A4', async () => {
  const pdf = await seasonContract();
  const texts = pageTexts(new Uint8Array(pdf));
  expect(texts).toHaveLength(14);
  expect(texts[0]).toContain('Your contract for the season 2026/27');
  expect([5, 8].map((index) => texts[index]?.includes('Signatures'))).toEqual([true, true]);
  expect(texts.filter((text) => text.includes('Signatures'))).toHaveLength(2);
  expect(texts[13]).toContain('Page 14 of 14');
  const { tally, checks } = await planOf(pdf);
  expect(tally.byPaper).toEqual({ iso_a4_210x297mm: 14 });
  expect(checks).toEqual([]);
});

test('the autumn programme: 8 pages of A4, the cover printed to its very edge', async () => {
  const pdf = await autumnProgramme();
  const texts = pageTexts(new Uint8Array(pdf));
  expect(texts).toHaveLength(8);
  expect((await planOf(pdf)).checks.map(({ code, pages }) => [code, pages])).toEqual([
    ['outside-printable', [{ document: 1, page: 1 }]],
  ]);
  expect(texts[0]).toContain('Autumn');
});

test('the stage plan: A3 landscape among A4 pages, from the tray that holds A3', async () => {
  const { sheets, checks } = await planOf(await stagePlan());
  expect(sheets.map(({ tray, front }) => [tray, front.orientation])).toEqual([
    ['tray-1', 'portrait'],
    ['tray-4', 'landscape'],
    ['tray-1', 'portrait'],
    ['tray-1', 'portrait'],
    ['tray-1', 'portrait'],
  ]);
  expect(checks).toEqual([]);
});

test.each([
  ['season contract', seasonContract],
  ['autumn programme', autumnProgramme],
  ['stage plan', stagePlan],
])('the %s is sound: no page overflows onto another, qpdf finds nothing', async (_name, make) => {
  const pdf = new Uint8Array(await make());
  expect(qpdfComplaints(pdf)).toBe('');
  expect(attachments(pdf)).toEqual({});
});

test('the players’ notes: 12 pages, three of them charts that look grey and are coded in colour', async () => {
  const pdf = await playersNotes();
  const texts = pageTexts(new Uint8Array(pdf));
  expect(texts).toHaveLength(12);
  expect(texts.flatMap((text, index) => (text.includes('Fingerings') ? [index + 1] : []))).toEqual([3, 7, 11]);
  const grey = (await planOf(pdf)).checks.find(({ code }) => code === 'gray-coded-as-color');
  expect(grey?.pages.map(({ page }) => page)).toEqual([3, 7, 11]);
});

test('the flyer: two designs of a quarter sheet, four on a side at their own size', async () => {
  const settings = {
    documents: [{ file: 'flyer.pdf', pages: '(1, 2) x2' }],
    paper: { size: 'iso_a4_210x297mm' },
    layout: { kind: 'grid', pagesPerSide: 4, marks: 'cut' },
  };
  const { sheets } = await planOf(await flyer(), settings);
  expect(sheets.map(({ front }) => front.cells.map(({ page }) => page))).toEqual([[1, 2, 1, 2]]);
});

test('the grant return: Letter and Legal by turns', async () => {
  const { tally } = await planOf(await grantReturn());
  expect(tally.byPaper).toEqual({ 'na_letter_8.5x11in': 3, 'na_legal_8.5x14in': 2 });
});

test('the rehearsal timetable: a portrait page and three landscape ones', async () => {
  const { sheets } = await planOf(await rehearsalTimetable());
  expect(sheets.map(({ front }) => front.orientation)).toEqual(['portrait', 'landscape', 'landscape', 'landscape']);
});
