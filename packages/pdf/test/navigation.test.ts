import { readFileSync } from 'node:fs';
import { readFacts } from '../src';
import { makePdf } from './make-pdf';
import { navigationByQpdf } from './poppler';

const MANUAL = readFileSync('.foglio/manual/maint-guide.en.pdf');

describe('a manual that this project did not write', () => {
  test('labels and headings are those qpdf reads', async () => {
    const { pages, outline } = await readFacts(MANUAL);
    const seen = navigationByQpdf(MANUAL);
    expect(pages.map((page) => page.label)).toEqual(seen.labels);
    expect(outline.map(({ title, level, page }) => ({ title, level, page }))).toEqual(seen.outline);
    expect(outline.length).toBeGreaterThan(50);
  });

  test('its chapters begin at the top of their page, sections further down do not', async () => {
    const { outline } = await readFacts(MANUAL);
    const chapters = outline.filter(({ level }) => level === 1);
    expect(Math.max(...chapters.map(({ top }) => top))).toBeLessThan(0.3);
    const within = outline.filter(({ level, page }, index) => level === 2 && page === outline[index - 1]?.page);
    expect(Math.min(...within.map(({ top }) => top))).toBeGreaterThan(0.1);
  });
});

/** Two pages, the second turned by 90, and an outline of one entry with this destination or action. */
function outlined(destination: string, catalog = ''): Uint8Array {
  return makePdf({
    1: `<< /Type /Catalog /Pages 2 0 R /Outlines 5 0 R ${catalog} >>`,
    2: '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 >>',
    3: '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] >>',
    4: '<< /Type /Page /Parent 2 0 R /MediaBox [100 100 400 500] /Rotate 90 >>',
    5: '<< /Type /Outlines /First 6 0 R /Last 6 0 R /Count 1 >>',
    6: `<< /Title (Terms  of\\nhire) /Parent 5 0 R ${destination} >>`,
  });
}

describe('where a heading leads (ISO 32000-1, 12.3.2.2)', () => {
  test.each<[string, string, number, number]>([
    ['a point of a page', '/Dest [3 0 R /XYZ 0 300 0]', 1, 0.25],
    ['a point without its height: the top', '/Dest [3 0 R /XYZ null null null]', 1, 0],
    ['a page as a whole', '/Dest [3 0 R /Fit]', 1, 0],
    ['a line of a page', '/Dest [3 0 R /FitH 100]', 1, 0.75],
    ['a rectangle: its upper edge', '/Dest [3 0 R /FitR 10 10 50 200]', 1, 0.5],
    // Turned clockwise, the left edge of the page is its upper edge: a quarter of 300 from there.
    ['a point of a turned page that does not begin at the origin', '/Dest [4 0 R /XYZ 175 500 0]', 2, 0.25],
    ['a point above the page: its top', '/Dest [3 0 R /XYZ 0 500 0]', 1, 0],
    ['by an action', '/A << /S /GoTo /D [3 0 R /XYZ 0 200 0] >>', 1, 0.5],
    ['by the place of the page', '/Dest [1 /Fit]', 2, 0],
  ])('%s', async (_what, destination, page, top) => {
    const { outline } = await readFacts(outlined(destination));
    expect(outline).toEqual([{ title: 'Terms of hire', level: 1, page, top: expect.closeTo(top, 6) as number }]);
  });

  test('by a name', async () => {
    const named = outlined('/Dest (fees)', '/Names << /Dests << /Names [(fees) [4 0 R /Fit]] >> >>');
    expect((await readFacts(named)).outline.map(({ page }) => page)).toEqual([2]);
  });

  test.each([
    ['to a web address', '/A << /S /URI /URI (https://example.org/) >>'],
    ['to a name nobody knows', '/Dest (nowhere)'],
    ['to a page that is not in the document', '/Dest [77 0 R /Fit]'],
    ['past the last page', '/Dest [9 /Fit]'],
    ['nowhere', ''],
    ['to something that is no destination', '/Dest 12'],
  ])('what leads %s is no heading', async (_what, destination) => {
    const { outline, pages } = await readFacts(outlined(destination));
    expect([outline, pages.length]).toEqual([[], 2]);
  });

  test('an outline that leads back to itself ends', async () => {
    const { pages } = await readFacts(outlined('/Dest [3 0 R /Fit] /First 6 0 R /Last 6 0 R /Next 6 0 R'));
    expect(pages).toHaveLength(2);
  });
});

test('labels in their styles, with prefix and start (ISO 32000-1, 12.4.2)', async () => {
  const kids = Array.from({ length: 8 }, (_, index) => `${10 + index} 0 R`).join(' ');
  const labels = '<< /Nums [0 << /S /r >> 3 << /S /D /St 5 >> 5 << /P (A-) /S /D >> 7 << /P (Cover) >>] >>';
  const pdf = makePdf({
    1: `<< /Type /Catalog /Pages 2 0 R /PageLabels ${labels} >>`,
    2: `<< /Type /Pages /Kids [${kids}] /Count 8 /MediaBox [0 0 300 400] >>`,
    ...Object.fromEntries(Array.from({ length: 8 }, (_, index) => [10 + index, '<< /Type /Page /Parent 2 0 R >>'])),
  });
  const { pages } = await readFacts(pdf);
  expect(pages.map(({ label }) => label)).toEqual(['i', 'ii', 'iii', '5', '6', 'A-1', 'A-2', 'Cover']);
  expect(navigationByQpdf(pdf).labels).toEqual(pages.map(({ label }) => label));
});
