import fc from 'fast-check';
import sharp from 'sharp';
import { takeIn } from '../../src';
import { PdfError } from '../../src/pdf-error';
import { embeddedPictures, pageSizes, qpdfComplaints, type Embedded } from '../poppler';
import { pwgRaster, type Drawn } from './pwg-raster';

/** PWG Raster (PWG 5102.4) made pages of; poppler gives them back, and every pixel is as it was sent. */

const DPI = 100;

/** Stripes, runs and noise, as pages of text and pictures have them. */
const drawn = (kind: Drawn['kind'], width: number, height: number, seed: number): Drawn => {
  const channels = kind === 'srgb_8' ? 3 : 1;
  const noise = (at: number): number => ((at * 2654435761 + seed * 40503) >>> 13) & 255;
  const pixels = Uint8Array.from({ length: width * height * channels }, (_, at) => {
    const [x, y] = [Math.floor(at / channels) % width, Math.floor(at / channels / width)];
    const value = y % 7 < 3 ? 255 : x % 50 < 30 ? (x * 5 + (at % channels) * 40) & 255 : noise(at);
    return kind === 'black_1' ? (value > 127 ? 255 : 0) : value;
  });
  return { kind, width, height, dpi: DPI, pixels };
};

/** Whether a picture is what was sent, at the resolution it was sent at. */
async function isSame({ png, dpi }: Embedded, { kind, width, height, pixels }: Drawn): Promise<boolean> {
  expect(dpi).toEqual([DPI, DPI]);
  const channels = kind === 'srgb_8' ? 3 : 1;
  const picture = sharp(png)
    .toColourspace(channels === 1 ? 'b-w' : 'srgb')
    .removeAlpha()
    .raw();
  const { data, info } = await picture.toBuffer({ resolveWithObject: true });
  expect([info.width, info.height, info.channels]).toEqual([width, height, channels]);
  return data.equals(pixels);
}

test('20 pages of three kinds are equal to what was sent, pixel by pixel at their resolution', async () => {
  const kinds = ['black_1', 'sgray_8', 'srgb_8'] as const;
  const pages = Array.from({ length: 20 }, (_, at) => drawn(kinds[at % 3]!, 203 + (at % 4) * 50, 150 + at, at));
  const { bytes, facts } = await takeIn(pwgRaster(pages));
  expect(qpdfComplaints(bytes)).toBe('');
  expect(facts.pages).toHaveLength(20);
  const pictures = embeddedPictures(bytes);
  expect(pictures.map(({ page }) => page)).toEqual(pages.map((_, at) => at + 1));
  for (const [at, page] of pages.entries()) expect([at, await isSame(pictures[at]!, page)]).toEqual([at, true]);
  const [first] = pageSizes(bytes);
  expect(first!.width).toBeCloseTo((203 * 72) / DPI, 1);
});

test('greys are kept as greys, so that nobody pays for colour', async () => {
  const { bytes } = await takeIn(pwgRaster([drawn('sgray_8', 100, 100, 1)]));
  const text = Buffer.from(bytes).toString('latin1');
  expect(text).toContain('/DeviceGray');
  expect(text).not.toContain('/DeviceRGB');
});

test('what ends too early, or tells of colours that are not known, is refused in words', async () => {
  const whole = pwgRaster([drawn('srgb_8', 60, 60, 3)]);
  const refusal = async (bytes: Uint8Array): Promise<string> => {
    const error: unknown = await takeIn(bytes).then(
      () => null,
      (thrown: unknown) => thrown,
    );
    expect(error).toBeInstanceOf(PdfError);
    return (error as PdfError).trouble;
  };
  expect(await refusal(whole.subarray(0, whole.length - 20))).toBe('damaged');
  expect(await refusal(whole.subarray(0, 1000))).toBe('damaged');
  const cmyk = Uint8Array.from(whole);
  cmyk[4 + 403] = 6;
  expect(await refusal(cmyk)).toBe('damaged');
  const huge = Uint8Array.from(whole);
  new DataView(huge.buffer).setUint32(4 + 372, 100_000);
  new DataView(huge.buffer).setUint32(4 + 392, 300_000);
  new DataView(huge.buffer).setUint32(4 + 376, 100_000);
  expect(await refusal(huge)).toBe('too-much');
});

test('whatever is wrong in it, it is refused and nothing else', async () => {
  const whole = pwgRaster([drawn('sgray_8', 20, 20, 5)]);
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(whole.length - 5), fc.nat(255)), { minLength: 1, maxLength: 6 }),
      async (changes) => {
        const copy = Uint8Array.from(whole);
        for (const [at, value] of changes) copy[4 + at] = value;
        const error: unknown = await takeIn(copy).then(
          () => null,
          (thrown: unknown) => thrown,
        );
        if (error !== null) expect(error).toBeInstanceOf(PdfError);
      },
    ),
    { numRuns: 40 },
  );
});
