import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plan, profileForTicket, type Cell, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import pixelmatch from 'pixelmatch';
import sharp from 'sharp';
import { impose, readFacts, takeIn } from '../src';
import { letters, take } from '../../typeset/test/take';
import { makePdf, pagesPdf, stream } from './make-pdf';
import { renderColour, type Picture } from './poppler';

/**
 * Source and imposed page, both drawn by poppler, compared by pixelmatch: a page must look in its cell as it did in its file.
 */

/** Part of the pixels that may differ. */
const MAY_DIFFER = 0.005;

const DPI = 144;
const INCH = 72;

const MANUAL = (): Uint8Array =>
  new Uint8Array(readFileSync(join(__dirname, '../../../.foglio/manual/maint-guide.en-20.pdf')));

const WORDS = '/Contents 100 0 R';

/** A stamp that hides half of the page's words, a highlight that multiplies with them, and a note that is hidden. */
const ANNOTATED = makePdf({
  1: '<< /Type /Catalog /Pages 2 0 R >>',
  2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] >>',
  3: '<< /Type /Page /Parent 2 0 R /Contents 4 0 R /Resources << /Font << /F1 9 0 R >> >> /Annots [5 0 R 6 0 R 7 0 R] >>',
  4: stream('BT /F1 24 Tf 60 60 Td (marked words) Tj ET'),
  5: '<< /Type /Annot /Subtype /Stamp /F 4 /Rect [40 200 140 260] /AP << /N 10 0 R >> >>',
  6: '<< /Type /Annot /Subtype /Highlight /F 4 /Rect [60 50 140 90] /QuadPoints [60 90 140 90 60 50 140 50] /AP << /N 11 0 R >> >>',
  7: '<< /Type /Annot /Subtype /Text /F 2 /Rect [200 300 240 340] /AP << /N 10 0 R >> >>',
  9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  10: stream('0.8 0.2 0.2 rg 0 0 50 30 re f', '/Type /XObject /Subtype /Form /BBox [0 0 50 30]'),
  11: stream(
    '/G gs 1 1 0 rg 0 0 80 40 re f',
    '/Type /XObject /Subtype /Form /BBox [0 0 80 40] /Resources << /ExtGState << /G << /BM /Multiply >> >> >>',
  ),
});

async function photo(): Promise<Uint8Array> {
  const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const;
  // Blurred: pixels of pure noise differ wherever a grid of pixels is laid over another.
  const picture = sharp({ create: { width: 64, height: 96, channels: 3, background: 'grey', noise } }).blur(2);
  const jpeg = await picture.withMetadata({ density: 16, orientation: 6 }).jpeg().toBuffer();
  return (await takeIn(new Uint8Array(jpeg))).bytes;
}

const text = async (): Promise<Uint8Array> =>
  (await take('letter.txt', letters('Łódź, 5 €\n\tindented\n'.repeat(20)))).bytes;

/** Name, file, page, and how many times larger a unit of its space is, which poppler ignores. */
const SET: readonly [string, () => Uint8Array | Promise<Uint8Array>, number, number][] = [
  ['the first page of a manual', MANUAL, 1, 1],
  ['a page of a manual with text', MANUAL, 12, 1],
  ['a page of a manual with a table', MANUAL, 20, 1],
  ['a page turned to the right', () => pagesPdf([`/MediaBox [0 0 300 400] /Rotate 90 ${WORDS}`]), 1, 1],
  ['a page turned to the left', () => pagesPdf([`/MediaBox [0 0 300 400] /Rotate -90 ${WORDS}`]), 1, 1],
  ['a page upside down', () => pagesPdf([`/MediaBox [0 0 300 400] /Rotate 180 ${WORDS}`]), 1, 1],
  [
    'a crop box away from the origin',
    () => pagesPdf([`/MediaBox [-20 -30 300 400] /CropBox [50 40 250 140] ${WORDS}`]),
    1,
    1,
  ],
  [
    'a crop box, turned',
    () => pagesPdf([`/MediaBox [-20 -30 300 400] /CropBox [50 40 250 140] /Rotate 270 ${WORDS}`]),
    1,
    1,
  ],
  ['larger units', () => pagesPdf([`/MediaBox [0 0 300 400] /UserUnit 1.5 ${WORDS}`]), 1, 1.5],
  ['stamps and highlights', () => ANNOTATED, 1, 1],
  ['a photo, turned by its camera', photo, 1, 1],
  ['a plain text', text, 1, 1],
];

async function imposed(bytes: Uint8Array, page: number, settings: Partial<TicketInput>) {
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf', pages: String(page) }], ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  const { front, paper } = planned.sheets[0]!;
  const height = front.orientation === 'portrait' ? paper.height : paper.width;
  return { pdf: await impose({ plan: planned, ticket, documents, blanks: 'none' }), cell: front.cells[0]!, height };
}

/** The part of a drawn side that a cell covers, as four bytes a pixel. */
function cutOut({ width, pixels }: Picture, cell: Cell, sideHeight: number, wide: number, high: number): Buffer {
  const perPoint = DPI / INCH;
  const [left, top] = [Math.round(cell.x * perPoint), Math.round((sideHeight - cell.y - cell.height) * perPoint)];
  const out = Buffer.alloc(wide * high * 4, 255);
  for (let y = 0; y < high; y += 1)
    for (let x = 0; x < wide; x += 1)
      for (let channel = 0; channel < 3; channel += 1)
        out[(y * wide + x) * 4 + channel] = pixels[((top + y) * width + left + x) * 3 + channel] ?? 255;
  return out;
}

async function partThatDiffers(bytes: Uint8Array, page: number, unit: number, settings: Partial<TicketInput>) {
  const { pdf, cell, height } = await imposed(bytes, page, settings);
  const source = renderColour(bytes, page, DPI * cell.scale * unit);
  const whole = { ...cell, x: 0, y: 0, height: (source.height * INCH) / DPI };
  const expected = cutOut(source, whole, whole.height, source.width, source.height);
  const got = cutOut(renderColour(pdf, 1, DPI), cell, height, source.width, source.height);
  const differing = pixelmatch(expected, got, null, source.width, source.height, { threshold: 0.1 });
  expect(expected.some((byte, at) => at % 4 !== 3 && byte < 200)).toBe(true);
  return differing / (source.width * source.height);
}

test.each(SET)('%s, alone on a sheet of its size', async (_what, make, page, unit) => {
  const settings = { paper: { size: 'as-page' }, scale: { mode: 'none' } } as const;
  expect(await partThatDiffers(await make(), page, unit, settings)).toBeLessThan(MAY_DIFFER);
});

test.each(SET)('%s, four a side', async (_what, make, page, unit) => {
  const settings = { layout: { kind: 'grid', pagesPerSide: 4 } } as const;
  expect(await partThatDiffers(await make(), page, unit, settings)).toBeLessThan(MAY_DIFFER);
});

test('a page that is a hair too small, or gone, is found to differ', async () => {
  const bytes = pagesPdf([`/MediaBox [0 0 300 400] ${WORDS}`]);
  const { pdf, cell, height } = await imposed(bytes, 1, { layout: { kind: 'grid', pagesPerSide: 4 } });
  const source = renderColour(bytes, 1, DPI * cell.scale);
  const wrong = { ...cell, x: cell.x + 8, scale: cell.scale };
  const got = cutOut(renderColour(pdf, 1, DPI), wrong, height, source.width, source.height);
  const whole = { ...cell, x: 0, y: 0, height: (source.height * INCH) / DPI };
  const expected = cutOut(source, whole, whole.height, source.width, source.height);
  const differing = pixelmatch(expected, got, null, source.width, source.height, { threshold: 0.1 });
  expect(differing / (source.width * source.height)).toBeGreaterThan(MAY_DIFFER);
});
