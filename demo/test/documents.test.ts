import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { readDetails, readFacts } from '@foglio/pdf';
import { autumnProgramme, seasonContract, stagePlan } from '../src';
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
