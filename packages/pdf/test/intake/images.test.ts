import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import { readDetails, takeIn, type PageDetails } from '../../src';
import { qpdfComplaints, render } from '../poppler';
import { tiff } from './tiff';

const INCH = 72;

/** 40 by 20 pixels: the left half dark, the right half light. */
const halves = (grey = false) => {
  const picture = sharp(
    Buffer.from(
      Array.from({ length: 800 }, (_, at) => (at % 40 < 20 ? 20 : 220)).flatMap((one) => [one, one, grey ? one : 40]),
    ),
    { raw: { width: 40, height: 20, channels: 3 } },
  );
  return grey ? picture.toColourspace('b-w') : picture;
};

async function page(bytes: Uint8Array) {
  const { bytes: pdf, facts, remarks } = await takeIn(new Uint8Array(bytes));
  expect(qpdfComplaints(pdf)).toBe('');
  expect(facts.pages).toHaveLength(1);
  const { width, height } = facts.pages[0]!;
  return { pdf, remarks, width, height };
}

/** Whether the middle of each side of the page, from the left on clockwise, is dark. */
function darkSides(pdf: Uint8Array): string {
  const { width, height, pixels } = render(pdf, 1, INCH);
  const at = (x: number, y: number): string =>
    pixels[Math.floor(y * height) * width + Math.floor(x * width)]! < 128 ? 'dark' : 'light';
  return [at(0.1, 0.5), at(0.5, 0.1), at(0.9, 0.5), at(0.5, 0.9)].join(' ');
}

test.each([
  ['jpeg', 300],
  ['png', 150],
] as const)('a %s of %d pixels an inch is a page of its printed size', async (format, density) => {
  const { width, height, remarks, pdf } = await page(
    await halves().withMetadata({ density }).toFormat(format).toBuffer(),
  );
  expect(width).toBeCloseTo((40 / density) * INCH, 2);
  expect(height).toBeCloseTo((20 / density) * INCH, 2);
  expect(remarks).toEqual([]);
  expect(darkSides(pdf).split(' ')[0]).toBe('dark');
});

test.each(['jpeg', 'png'] as const)(
  'a %s that does not say its resolution: 96 pixels an inch, and said so',
  async (format) => {
    const { width, remarks } = await page(await halves().toFormat(format).toBuffer());
    expect(width).toBeCloseTo(30, 2);
    expect(remarks).toEqual([expect.stringMatching(/96 pixels an inch/)]);
  },
);

test.each([
  [1, 'dark', 0],
  [2, 'light', 0],
  [3, 'light', 0],
  [6, 'dark', 1],
  [8, 'light', 1],
])('EXIF orientation %d is followed (Exif 2.32, 4.6.4)', async (orientation, first, along) => {
  const { pdf, width, height } = await page(
    await halves().withMetadata({ orientation, density: 100 }).jpeg().toBuffer(),
  );
  expect(width > height).toBe(along === 0);
  expect(darkSides(pdf).split(' ')[along]).toBe(first);
});

test('a JPEG goes in without loss; a grey picture stays grey; what is transparent is paper', async () => {
  const jpeg = await halves().jpeg().toBuffer();
  const { pdf } = await page(jpeg);
  expect(Buffer.from(pdf).includes(jpeg)).toBe(true);

  const details: PageDetails[] = [];
  const { pdf: grey } = await page(await halves(true).png().toBuffer());
  await readDetails(grey, 'all', (_page, one) => void details.push(one));
  const { pdf: coloured } = await page(await halves().png().toBuffer());
  await readDetails(coloured, 'all', (_page, one) => void details.push(one));
  expect(details.map(({ color }) => color)).toEqual([false, true]);

  const clear = sharp({ create: { width: 20, height: 20, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } });
  const { pdf: white } = await page(await clear.png().toBuffer());
  expect(darkSides(white)).toBe('light light light light');
});

test('interlaced, 16 bits, palette: all are taken', async () => {
  for (const options of [{ progressive: true }, { palette: true, colours: 4 }, { bitdepth: 16 as never }]) {
    const { pdf } = await page(await halves().png(options).toBuffer());
    expect(darkSides(pdf)).toMatch(/^dark .* light/);
  }
});

test('one that breaks off, or claims more pixels than any camera gives, is refused with the reason', async () => {
  const jpeg = await sharp({
    create: {
      width: 400,
      height: 400,
      channels: 3,
      background: 'red',
      noise: { type: 'gaussian', mean: 99, sigma: 60 },
    },
  })
    .jpeg()
    .toBuffer();
  await expect(takeIn(new Uint8Array(jpeg.subarray(0, jpeg.length / 2)))).rejects.toThrow(/This image is damaged: /);
  const png = await halves().png().toBuffer();
  png.writeUInt32BE(60_000, 16);
  png.writeUInt32BE(60_000, 20);
  await expect(takeIn(new Uint8Array(png))).rejects.toThrow(/too much memory|damaged/);
});

test('an image a kilometre wide is made no larger than a page may be', async () => {
  const wide = await sharp({ create: { width: 5000, height: 10, channels: 3, background: 'red' } })
    .withMetadata({ density: 1 })
    .jpeg()
    .toBuffer();
  expect((await page(wide)).width).toBeLessThanOrEqual(14_400.01);
});

test('a picture stands where poppler expects it', async () => {
  const { pdf } = await page(await halves().withMetadata({ density: 300 }).jpeg().toBuffer());
  expect(execFileSync('pdfimages', ['-list', '-'], { input: Buffer.from(pdf), encoding: 'utf8' })).toMatch(
    /40 +20 .* 300 +300/,
  );
});

test('each page of a TIFF is a page of its own printed size, and greys stay greys', async () => {
  const pages = [
    { width: 827, height: 1165, dpi: 200, grey: 32 },
    { width: 583, height: 827, dpi: 100, grey: 208 },
    { width: 400, height: 200, dpi: 200, grey: 0, isTwoTone: true },
  ];
  const { bytes, facts, remarks } = await takeIn(tiff(pages));
  expect(qpdfComplaints(bytes)).toBe('');
  expect(facts.pages.map(({ width, height }) => [width, height].map(Math.round))).toEqual([
    [298, 419],
    [420, 595],
    [144, 72],
  ]);
  expect(remarks).toEqual([]);
  const middle = [1, 2, 3].map((number) => {
    const { width, height, pixels } = render(bytes, number, INCH);
    return pixels[Math.floor(height / 2) * width + Math.floor(width / 2)]! < 128 ? 'dark' : 'light';
  });
  expect(middle).toEqual(['dark', 'light', 'dark']);
  const details: PageDetails[] = [];
  await readDetails(bytes, 'all', (_, one) => void details.push(one));
  expect(details.map(({ color }) => color)).toEqual([false, false, false]);
});

test('a TIFF that breaks off is refused', async () => {
  const whole = tiff([{ width: 827, height: 1165, dpi: 200, grey: 32 }]);
  await expect(takeIn(whole.slice(0, whole.length / 2))).rejects.toMatchObject({ trouble: 'damaged' });
});
