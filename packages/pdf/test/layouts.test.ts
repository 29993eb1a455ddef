import { plan, profileForTicket, type Cell, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { numberedPdf } from './make-pdf';
import { qpdfComplaints, render, wordPlaces } from './poppler';

type Settings = Omit<TicketInput, 'version' | 'documents'>;

const A4 = { width: 595.276, height: 841.89 };

async function made(settings: Settings, source: Uint8Array, sets: 'one' | 'all' = 'one') {
  const documents = [{ name: 'a.pdf', bytes: source, ...(await readFacts(source)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  const pdf = await impose({ plan: planned, ticket, documents, blanks: 'every-sheet', sets });
  return { planned, pdf };
}

/** Where a point of a page lands by the plan: `turn` is clockwise, x and y are the lower left corner after it. */
function landing({ x, y, scale, turn, width, height }: Cell, at: { x: number; y: number }) {
  if (turn === 0) return { x: x + at.x * scale, y: y + at.y * scale };
  // Clockwise, what was up is right, and what was right is down.
  if (turn === 90) return { x: x + at.y * scale, y: y + height - at.x * scale };
  expect(turn).toBe(270);
  // Turned anticlockwise, what was up is left: the distance from the upper edge becomes that from the left one.
  return { x: x + width - at.y * scale, y: y + at.x * scale };
}

const grid = (settings: object): Settings => ({ layout: { kind: 'grid', ...settings } });

describe('plan and PDF agree: every word is where the plan puts it, within half a point (pdftotext -bbox)', () => {
  test.each<[string, Settings, { width: number; height: number }]>([
    ['two a side', grid({ pagesPerSide: 2 }), A4],
    ['four a side, two-sided', { ...grid({ pagesPerSide: 4 }), sides: 'two-sided' }, A4],
    ['nine a side, from the right upward, with gutter', grid({ pagesPerSide: 9, flow: 'toleft-totop', gutter: 5 }), A4],
    ['columns and rows of one’s own, turned where larger', grid({ columns: 1, rows: 3, turn: 'best' }), A4],
    ['landscape pages, six a side', grid({ pagesPerSide: 6 }), { width: 960, height: 540 }],
    [
      'a small design filling a side',
      { ...grid({ columns: 2, rows: 5, repeat: 'fill-side', marks: 'cut' }), paper: { size: 'iso_a4_210x297mm' } },
      { width: 241, height: 156 },
    ],
    ['a booklet', { layout: { kind: 'booklet' } }, A4],
    [
      'a booklet in signatures, bound right, with creep',
      { bind: 'right', layout: { kind: 'booklet', sheetsPerSignature: 2, creep: 1 } },
      A4,
    ],
    [
      'on larger paper with a margin, scaled',
      { paper: { size: 'iso_a3_297x420mm' }, margin: 12, scale: { mode: 'percent', percent: 80 } },
      A4,
    ],
    ['two-sided, with a margin for binding', { sides: 'two-sided', bindingMargin: 15 }, A4],
    [
      'four a side, bound at the top',
      { ...grid({ pagesPerSide: 4 }), sides: 'two-sided', bind: 'top', bindingMargin: 25 },
      A4,
    ],
    ['cards, each back behind its own front', grid({ pagesPerSide: 4, backs: 'behind' }), A4],
    [
      'cards that are turned, their backs the other way, in piles',
      {
        ...grid({ columns: 1, rows: 3, turn: 'best', backs: 'behind', stack: 'cut' }),
        paper: { size: 'iso_a4_210x297mm' },
      },
      A4,
    ],
    ['so many pieces', { ...grid({ pagesPerSide: 4 }), pieces: { count: 18 } }, A4],
    ['as wide as the side', { scale: { mode: 'fit-width' }, margin: 15 }, A4],
  ])('%s', async (_what, settings, size) => {
    const source = numberedPdf(11, size.width, size.height);
    const sources = wordPlaces(source);
    const { planned, pdf } = await made(settings, source);
    expect(qpdfComplaints(pdf)).toBe('');
    const expected = planned.sheets.flatMap(({ front, back }) =>
      [front, ...(back ? [back] : [])].map(({ cells }) =>
        cells.map((cell) => ({ word: `page${cell.page}`, ...landing(cell, sources[cell.page - 1]![0]!) })),
      ),
    );
    const found = wordPlaces(pdf);
    expect(found).toHaveLength(expected.length);
    expected.forEach((words, side) => {
      const left = [...found[side]!];
      for (const { word, x, y } of words) {
        const near = left.findIndex((one) => one.word === word && Math.hypot(one.x - x, one.y - y) < 0.5);
        expect({ side, word, x, y, found: left[near] ?? left }).toMatchObject({ found: { word } });
        left.splice(near, 1);
      }
      expect(left).toEqual([]);
    });
  });
});

test('slips between sets are written out as blank pages, with --set all', async () => {
  const { pdf } = await made({ copies: 3, slips: { between: 'sets' } }, numberedPdf(2));
  const whole = await made({ copies: 3, slips: { between: 'sets' } }, numberedPdf(2), 'all');
  const words = (bytes: Uint8Array) => wordPlaces(bytes).map((page) => page.map(({ word }) => word).join());
  expect(words(pdf)).toEqual(['page1', 'page2']);
  expect(words(whole.pdf)).toEqual(['page1', 'page2', '', 'page1', 'page2', '', 'page1', 'page2']);
});

describe('frames and cut marks are drawn where the plan says', () => {
  /** Whether a rendered page is dark at a point, in points from the lower left, within a point. */
  function darkAt({ width, height, pixels }: ReturnType<typeof render>, x: number, y: number, dpi: number): boolean {
    const k = dpi / 72;
    for (let row = -2; row <= 2; row += 1) {
      for (let column = -2; column <= 2; column += 1) {
        const at = Math.round(height - y * k + row) * width + Math.round(x * k + column);
        if ((pixels[at] ?? 255) < 128) return true;
      }
    }
    return false;
  }

  test.each<[string, object]>([
    ['frames', { pagesPerSide: 4, frame: true }],
    ['cut marks', { columns: 2, rows: 2, marks: 'cut' }],
  ])('%s', async (_what, layout) => {
    const settings = { ...grid(layout), margin: 20, paper: { size: 'iso_a4_210x297mm' } };
    const { planned, pdf } = await made(settings, numberedPdf(4, 200, 200));
    const page = render(pdf, 1, 144);
    const lines = planned.sheets[0]!.front.marks ?? [];
    expect(lines.length).toBeGreaterThan(7);
    for (const [x1, y1, x2, y2] of lines) {
      expect(darkAt(page, (x1 + x2) / 2, (y1 + y2) / 2, 144)).toBe(true);
    }
    const without = await made(
      { ...grid({ ...layout, frame: false, marks: 'none' }), margin: 20, paper: settings.paper },
      numberedPdf(4, 200, 200),
    );
    const bare = render(without.pdf, 1, 144);
    const [x1, y1, x2, y2] = lines[0]!;
    expect(darkAt(bare, (x1 + x2) / 2, (y1 + y2) / 2, 144)).toBe(false);
  });
});
