import { boxOfText, plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { numberedPdf } from './make-pdf';
import { qpdfComplaints, wordPlaces } from './poppler';

async function made(settings: object, sets: 'one' | 'all') {
  const bytes = numberedPdf(2);
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const informationSheet = { print: true, by: 'Ada Quill' };
  const ticket = readTicket({
    version: 1,
    title: 'Přehled',
    documents: [{ file: 'a' }],
    informationSheet,
    ...settings,
  });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents), {
    now: '2026-09-01T14:05',
    sentence: 'Print both pages of a, 2 copies.',
  });
  return { planned, pdf: await impose({ plan: planned, ticket, documents, blanks: 'every-sheet', sets }) };
}

test('it is the first page of the file, every word where the plan says (pdftotext -bbox)', async () => {
  const { planned, pdf } = await made({}, 'one');
  expect(qpdfComplaints(pdf)).toBe('');
  const [page] = wordPlaces(pdf);
  const texts = planned.informationSheet!.front.texts!;
  expect(page!.map(({ word }) => word)).toEqual(expect.arrayContaining(['Přehled', 'Ada', 'Quill', '14:05']));
  for (const text of texts) {
    const { x, y, height } = boxOfText(text);
    const [first] = text.text.split(' ');
    const near = page!.some((one) => one.word === first && Math.abs(one.y - (y + height / 2)) < 2 && one.x >= x - 0.5);
    expect([text.text, near]).toEqual([text.text, true]);
  }
});

test.each([
  ['one', {}, ['Information sheet front', 'Sheet 1 front', 'Sheet 2 front']],
  [
    'all',
    { copies: 2, sides: 'two-sided', delivery: 'last-to-first' },
    [
      'Information sheet front',
      'Information sheet back',
      'Sheet 1 front',
      'Sheet 1 back',
      'Sheet 1 front',
      'Sheet 1 back',
    ],
  ],
] as const)(
  '%s set written: it stands before it, once, whichever sheet is printed first',
  async (sets, settings, labels) => {
    const { pdf } = await made(settings, sets);
    expect((await readFacts(pdf)).pages.map(({ label }) => label)).toEqual(labels);
  },
);
