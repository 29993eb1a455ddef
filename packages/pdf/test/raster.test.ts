import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { profileForTicket, plan, type Raster, type Sheet } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts, writeRaster } from '../src';
import { readPages, type RasterPage } from '../src/intake/raster';
import { rasterHeader } from '../src/raster/header';
import { pack } from '../src/raster/packing';

const DPI = 60;
const TROUBLE = { damaged: (why: string) => new Error(why), tooMuch: () => new Error('too much') };

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'foglio-raster-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Pages with something on them that tells which way up they are, one of them across. */
async function drawn(): Promise<Uint8Array> {
  const document = new PDFDocument({ autoFirstPage: false });
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  for (const [at, size] of [
    [595.28, 841.89],
    [595.28, 841.89],
    [841.89, 595.28],
    [841.89, 595.28],
  ].entries()) {
    document.addPage({ size: size as [number, number], margin: 40 });
    document
      .fontSize(30)
      .fillColor('#204060')
      .text(`Side ${at + 1}`, 60, 60);
    document.rect(60, 140, 150, 40 + 30 * at).fill('#c04020');
  }
  document.end();
  await new Promise((resolve) => document.on('end', resolve));
  return new Uint8Array(Buffer.concat(parts));
}

/** An imposed file of two sheets, both sides printed, and its sheets. */
async function imposed(bind: 'left' | 'top'): Promise<{ path: string; sheets: readonly Sheet[] }> {
  const bytes = await drawn();
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], sides: 'two-sided', bind });
  const made = plan(ticket, documents, profileForTicket(ticket, documents));
  const path = join(folder, 'imposed.pdf');
  writeFileSync(path, await impose({ plan: made, ticket, documents, blanks: 'none' }));
  return { path, sheets: made.sheets };
}

async function written(path: string, sheets: readonly Sheet[], how: Omit<Raster, 'format'>): Promise<Uint8Array> {
  const target = join(folder, 'sides.pwg');
  await writeRaster(path, target, sheets, { ...how, format: 'image/pwg-raster' });
  return new Uint8Array(readFileSync(target));
}

const pagesOf = (bytes: Uint8Array): RasterPage[] => [...readPages(bytes, 1e9, TROUBLE)];

interface ByPoppler {
  readonly page: number;
  readonly inColor?: boolean;
  readonly turned?: (of: sharp.Sharp) => sharp.Sharp;
}

/** A page as poppler draws it, turned as a picture for a printer lies on its paper, of that measure. */
async function byPoppler(path: string, like: RasterPage, { page, inColor = false, turned = (of) => of }: ByPoppler) {
  const base = join(folder, `poppler-${page}`);
  const one = ['-f', `${page}`, '-l', `${page}`, '-singlefile'];
  const isAcross = page > 2;
  const [x, y] = isAcross ? [like.height, like.width] : [like.width, like.height];
  // Parts of a pixel it rounds up, which others do not.
  const size = ['-scale-to-x', `${x}`, '-scale-to-y', `${y}`];
  execFileSync('pdftoppm', ['-png', ...size, ...(inColor ? [] : ['-gray']), ...one, path, base]);
  const upright = sharp(`${base}.png`).rotate(isAcross ? -90 : 0);
  const lying = turned(sharp(await upright.png().toBuffer()));
  return (inColor ? lying.removeAlpha() : lying.toColourspace('b-w')).raw().toBuffer();
}

/** How far two pictures are apart, of 255, on average. */
function distance(one: Uint8Array, other: Uint8Array): number {
  expect(one.length).toBe(other.length);
  return one.reduce((sum, value, at) => sum + Math.abs(value - other[at]!), 0) / one.length;
}

/** Two renderers differ at the edges of letters. */
const CLOSE = 1.5;

test.each([true, false])('pictures are what poppler draws, in colour: %s', async (inColor) => {
  const { path, sheets } = await imposed('left');
  const pages = pagesOf(await written(path, sheets, { dpi: DPI, inColor, sheetBack: 'normal' }));
  expect(pages).toHaveLength(4);
  for (const [at, page] of pages.entries()) {
    // A4 (ISO 216), upright whichever way it is read.
    expect([page.width, page.height, page.channels]).toEqual([496, 702, inColor ? 3 : 1]);
    expect(distance(page.pixels, await byPoppler(path, page, { page: at + 1, inColor }))).toBeLessThan(CLOSE);
  }
});

/** How the back of a sheet is to lie, by the words of PWG 5102.4 and the edge on which the sheet turns. */
const BACKS: readonly [Raster['sheetBack'], 'left' | 'top', (of: sharp.Sharp) => sharp.Sharp][] = [
  ['normal', 'left', (of) => of],
  ['rotated', 'left', (of) => of.rotate(180)],
  ['flipped', 'left', (of) => of.flip()],
  ['manual-tumble', 'left', (of) => of],
  ['normal', 'top', (of) => of],
  ['rotated', 'top', (of) => of],
  ['flipped', 'top', (of) => of.flop()],
  ['manual-tumble', 'top', (of) => of.rotate(180)],
];

test.each(BACKS)('backs of a printer that wants them %s, of sheets held at the %s', async (sheetBack, bind, turned) => {
  const { path, sheets } = await imposed(bind);
  const bytes = await written(path, sheets.slice(0, 1), { dpi: DPI, inColor: false, sheetBack });
  const [front, back] = pagesOf(bytes);
  expect(distance(front!.pixels, await byPoppler(path, front!, { page: 1 }))).toBeLessThan(CLOSE);
  expect(distance(back!.pixels, await byPoppler(path, back!, { page: 2, turned }))).toBeLessThan(CLOSE);
});

test('the same as another writer of PWG Raster makes of it: Debian’s Ghostscript', async () => {
  const { path, sheets } = await imposed('left');
  const ours = await written(path, sheets.slice(0, 1), { dpi: DPI, inColor: true, sheetBack: 'normal' });
  const theirs = join(folder, 'theirs.pwg');
  const kind = ['-dcupsColorSpace=19', '-dcupsBitsPerColor=8', '-dcupsColorOrder=0'];
  const smooth = ['-dTextAlphaBits=4', '-dGraphicsAlphaBits=4'];
  const pages = ['-dFirstPage=1', '-dLastPage=2'];
  execFileSync('gs', [
    '-q',
    '-dBATCH',
    '-dNOPAUSE',
    '-sDEVICE=pwgraster',
    `-r${DPI}`,
    ...kind,
    ...smooth,
    ...pages,
    `-sOutputFile=${theirs}`,
    path,
  ]);
  const read = new Uint8Array(readFileSync(theirs));
  expect(pagesOf(read).map(({ width, height, dpi, channels }) => [width, height, dpi, channels])).toEqual(
    pagesOf(ours).map(({ width, height, dpi, channels }) => [width, height, dpi, channels]),
  );
  pagesOf(read).forEach(({ pixels }, at) => expect(distance(pixels, pagesOf(ours)[at]!.pixels)).toBeLessThan(CLOSE));
  // Its kind, resolution, measures, bits and colours stand where the other writer puts them.
  const told = (bytes: Uint8Array, from: number, to: number): string =>
    Buffer.from(bytes.subarray(4 + from, 4 + to)).toString('hex');
  for (const [from, to] of [
    [0, 10],
    [276, 284],
    [340, 344],
    [352, 360],
    [372, 380],
    [384, 396],
    [400, 404],
    [420, 424],
  ] as const)
    expect([from, told(ours, from, to)]).toEqual([from, told(read, from, to)]);
});

test('a JPEG is a picture of the first side, upright and at its measure', async () => {
  const { path, sheets } = await imposed('left');
  for (const [inColor, channels] of [
    [true, 3],
    [false, 1],
  ] as const) {
    const target = join(folder, `${channels}.jpg`);
    const how = { dpi: DPI, inColor, sheetBack: 'normal', format: 'image/jpeg' } as const;
    await writeRaster(path, target, sheets.slice(0, 1), how);
    const told = await sharp(target).metadata();
    expect([told.format, told.width, told.height, told.channels]).toEqual(['jpeg', 496, 702, channels]);
    const read = inColor ? sharp(target) : sharp(target).toColourspace('b-w');
    const pixels = await read.raw().toBuffer();
    const like = { width: 496, height: 702, channels, dpi: [DPI, DPI], pixels } as const;
    expect(distance(pixels, await byPoppler(path, like, { page: 1, inColor }))).toBeLessThan(CLOSE);
  }
});

test('law: what is packed is unpacked as it was, whatever the pixels', () => {
  const picture = fc.record({
    width: fc.integer({ min: 1, max: 300 }),
    height: fc.integer({ min: 1, max: 6 }),
    channels: fc.constantFrom<1 | 3>(1, 3),
  });
  const values = fc.infiniteStream(
    fc.oneof({ weight: 4, arbitrary: fc.constant(255) }, fc.integer({ min: 0, max: 3 })),
  );
  fc.assert(
    fc.property(picture, values, ({ width, height, channels }, stream) => {
      const pixels = Uint8Array.from([...stream.take(width * height * channels)]);
      const told = {
        width,
        height,
        dpi: DPI,
        channels,
        duplex: false,
        tumble: false,
        turned: { cross: 1, feed: 1 } as const,
        pages: 1,
      };
      const packed = pack(pixels, width * channels, channels);
      const [page] = pagesOf(Uint8Array.from([...Buffer.from('RaS2'), ...rasterHeader(told), ...packed]));
      expect(Buffer.from(page!.pixels).equals(Buffer.from(pixels))).toBe(true);
      expect(page).toMatchObject({ width, height, channels });
    }),
    { numRuns: 200 },
  );
});
