import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { BLACK_WAYS, COLOR_WAYS, pagesDrawn, type ColorWay } from './color-ways';
import { inks } from './inks';
import { qpdfComplaints, renderAll, type Picture } from './poppler';

/**
 * Every way in which colour gets into a file, printed in grey and with its colours left alone: Ghostscript counts the inks, poppler
 * says how it looks.
 */

async function printed(bytes: Uint8Array, color: 'auto' | 'monochrome'): Promise<Uint8Array> {
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  // As large as it is, so that its pixels fall on the same places.
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], color, scale: { mode: 'none' } });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  return impose({ plan: planned, ticket, documents, blanks: 'none', grey: color === 'monochrome' });
}

const DPI = 72;

/** How far the pixels of two pictures are apart, of 255, where either of them is not paper. */
function apart(one: Picture, other: Picture, tell: (red: number, green: number, blue: number) => number[]): number {
  expect([one.width, one.height]).toEqual([other.width, other.height]);
  let [sum, painted] = [0, 0];
  // Most of them are paper.
  const isPaper = ({ pixels }: Picture, at: number): boolean =>
    pixels[at]! > 250 && pixels[at + 1]! > 250 && pixels[at + 2]! > 250;
  const told = ({ pixels }: Picture, at: number): number[] => tell(pixels[at]!, pixels[at + 1]!, pixels[at + 2]!);
  for (let at = 0; at < one.pixels.length; at += 3) {
    if (isPaper(one, at) && isPaper(other, at)) continue;
    const there = told(other, at);
    sum += Math.max(...told(one, at).map((value, index) => Math.abs(value - there[index]!)));
    painted += 1;
  }
  expect(painted).toBeGreaterThan(100);
  return sum / painted;
}

/** How bright a colour is (IEC 61966-2-1: the curve of sRGB and the weights of its primaries). */
function asGrey(...colour: [number, number, number]): number[] {
  const [red, green, blue] = colour.map((value) => {
    const part = value / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  const light = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  return [255 * (light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055)];
}
/** Pixels at edges may be a shade apart. */
const SAME = 1;

const asIs = (red: number, green: number, blue: number): number[] => [red, green, blue];

/** Of programs that reckon how bright a colour is, one takes the weights for light and one for what screens are told. */
const GREY_APART = 25;

/** A file with a page for each way, printed: its inks and pictures, and those of the file itself. */
async function compared(ways: Readonly<Record<string, ColorWay>>, color: 'auto' | 'monochrome') {
  const source = pagesDrawn(Object.values(ways));
  const made = await printed(source, color);
  expect(qpdfComplaints(made)).toBe('');
  const [before, after] = [renderAll(source, DPI), renderAll(made, DPI)];
  const [inksBefore, inksAfter] = [inks(source), inks(made)];
  return (name: string) => {
    const at = Object.keys(ways).indexOf(name);
    return { before: before[at]!, after: after[at]!, inksBefore: inksBefore[at]!, inksAfter: inksAfter[at]! };
  };
}

describe('colours', () => {
  let inGrey: Awaited<ReturnType<typeof compared>>;
  let leftAlone: Awaited<ReturnType<typeof compared>>;
  beforeAll(async () => {
    inGrey = await compared(COLOR_WAYS, 'monochrome');
    leftAlone = await compared(COLOR_WAYS, 'auto');
  });

  test.each(Object.keys(COLOR_WAYS))('%s: in grey none is left, and it looks as bright', (name) => {
    const { before, after, inksBefore, inksAfter } = inGrey(name);
    expect(inksBefore.slice(0, 3)).not.toEqual([0, 0, 0]);
    expect(inksAfter.slice(0, 3)).toEqual([0, 0, 0]);
    expect(inksAfter[3]).toBeGreaterThan(0);
    expect(apart(before, after, asGrey)).toBeLessThan(GREY_APART);
  });

  test.each(Object.keys(COLOR_WAYS))('%s: left alone it looks the same', (name) => {
    const { before, after } = leftAlone(name);
    expect(apart(before, after, asIs)).toBeLessThan(SAME);
  });
});

describe.each(['monochrome', 'auto'] as const)('black and grey alone, %s', (color) => {
  let found: Awaited<ReturnType<typeof compared>>;
  beforeAll(async () => {
    found = await compared(BLACK_WAYS, color);
  });

  test.each(Object.keys(BLACK_WAYS))('%s stays so', (name) => {
    const { before, after, inksAfter } = found(name);
    expect(inksAfter.slice(0, 3)).toEqual([0, 0, 0]);
    expect(inksAfter[3]).toBeGreaterThan(0);
    expect(apart(before, after, asIs)).toBeLessThan(SAME);
  });
});
