import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { create, type Font } from 'fontkit';
import { boxOfText, passPlan, plan, profileForTicket, type Plan, type Text, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { LINE_FONT } from '../src/line-pages';
import { numberedPdf } from './make-pdf';
import { pageTexts, qpdfComplaints, wordPlaces } from './poppler';

const LINES: TicketInput['lines'] = [
  { at: 'bottom-center', text: 'foot-{page}-of-{pages}', size: 9 },
  { at: 'top-right', text: '{title}', size: 7 },
];

async function made(settings: object, change: (plan: Plan) => Plan = (one) => one) {
  const bytes = numberedPdf(4);
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, title: 'Přehled', documents: [{ file: 'a' }], lines: LINES, ...settings });
  const printer = { ...profileForTicket(ticket, documents), margin: 5, duplex: !('hand' in settings) };
  const planned = change(plan(ticket, documents, printer));
  return { planned, pdf: await impose({ plan: planned, ticket, documents, blanks: 'none' }) };
}

const textsOf = ({ sheets }: Plan): Text[][] =>
  sheets.flatMap(({ front, back }) => [front, ...(back ? [back] : [])].map(({ texts }) => texts ?? []));

test.each([
  ['a page a side', {}],
  ['a booklet', { layout: { kind: 'booklet' } }],
  ['four a side', { layout: { kind: 'grid', pagesPerSide: 4 } }],
])('%s: every line stands where the plan says, as wide as it says (pdftotext -bbox)', async (_what, settings) => {
  const { planned, pdf } = await made(settings);
  expect(qpdfComplaints(pdf)).toBe('');
  const places = wordPlaces(pdf);
  textsOf(planned).forEach((texts, page) => {
    expect(texts.length).toBeGreaterThan(0);
    for (const text of texts) {
      const { x, width, y, height } = boxOfText(text);
      const found = places[page]!.filter(({ word }) => word === text.text);
      const near = found.some(
        (one) => Math.abs(one.x - (x + width / 2)) < 0.5 && Math.abs(one.y - (y + height / 2)) < 2,
      );
      expect([text.text, found.length > 0, near]).toEqual([text.text, true, true]);
    }
  });
});

test('in the second of two passes a line that is turned stands upside down at the other edge', async () => {
  const settings = { sides: 'two-sided', bind: 'top' };
  const { planned, pdf } = await made(settings, (one) =>
    passPlan(
      {
        ...one,
        passes: [
          { side: 'front', order: [1, 2] },
          { side: 'back', order: [2, 1], handling: 'as-it-lies', turned: [1, 2] },
        ],
      },
      'back',
      null,
    ),
  );
  expect(textsOf(planned)[0]).toMatchObject([{ text: 'foot-4-of-4', turn: 180 }, { turn: 180 }]);
  const [word] = wordPlaces(pdf)[0]!.filter(({ word: said }) => said === 'foot-4-of-4');
  expect(word!.x).toBeCloseTo(595.276 / 2, 0);
  expect(word!.y).toBeGreaterThan(800);
});

test('letters beyond those of English come out, and the pages are there as before', async () => {
  const { pdf } = await made({});
  expect(pageTexts(pdf).map((text) => [text.includes('Přehled'), /page\d/.exec(text)?.[0]])).toEqual(
    [1, 2, 3, 4].map((page) => [true, `page${page}`]),
  );
});

test('the core knows how wide the font’s letters are', () => {
  const font = create(readFileSync(createRequire(__filename).resolve(LINE_FONT))) as Font;
  for (let code = 0x20; code < 0x180; code += 1) {
    if (!font.hasGlyphForCodePoint(code)) continue;
    const told = boxOfText({ text: String.fromCodePoint(code), x: 0, y: 0, size: 1000, turn: 0 }).width;
    const wide = (1000 * font.glyphForCodePoint(code).advanceWidth) / font.unitsPerEm;
    expect([code, Math.abs(told - wide) <= 0.5]).toEqual([code, true]);
  }
});
