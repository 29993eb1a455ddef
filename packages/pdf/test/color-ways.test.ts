import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { BLACK_WAYS, COLOR_WAYS, pageDrawn } from './color-ways';
import { inks } from './inks';
import { qpdfComplaints, renderColour, type Picture } from './poppler';

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
  for (let at = 0; at < one.pixels.length; at += 3) {
    const [a, b] = [one, other].map(({ pixels }) => pixels.subarray(at, at + 3) as unknown as [number, number, number]);
    if ([...a!, ...b!].every((value) => value > 250)) continue;
    const [here, there] = [tell(...a!), tell(...b!)];
    sum += Math.max(...here.map((value, index) => Math.abs(value - there[index]!)));
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

describe.each(Object.entries(COLOR_WAYS))('%s', (_what, way) => {
  const source = pageDrawn(way);

  test('in grey has no colour left and looks as bright', async () => {
    const grey = await printed(source, 'monochrome');
    expect(inks(source)[0]!.slice(0, 3)).not.toEqual([0, 0, 0]);
    const [cyan, magenta, yellow, black] = inks(grey)[0]!;
    expect([cyan, magenta, yellow]).toEqual([0, 0, 0]);
    expect(black).toBeGreaterThan(0);
    expect(qpdfComplaints(grey)).toBe('');
    expect(apart(renderColour(source, 1, DPI), renderColour(grey, 1, DPI), asGrey)).toBeLessThan(GREY_APART);
  });

  test('left alone looks the same', async () => {
    const coloured = await printed(source, 'auto');
    expect(apart(renderColour(source, 1, DPI), renderColour(coloured, 1, DPI), asIs)).toBeLessThan(SAME);
  });
});

describe.each(Object.entries(BLACK_WAYS))('%s', (_what, way) => {
  const source = pageDrawn(way);

  test.each(['monochrome', 'auto'] as const)('stays black alone, %s', async (color) => {
    const made = await printed(source, color);
    const [cyan, magenta, yellow, black] = inks(made)[0]!;
    expect([cyan, magenta, yellow]).toEqual([0, 0, 0]);
    expect(black).toBeGreaterThan(0);
    expect(apart(renderColour(source, 1, DPI), renderColour(made, 1, DPI), asIs)).toBeLessThan(SAME);
  });
});
