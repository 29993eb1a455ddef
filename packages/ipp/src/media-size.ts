import { KNOWN_SIZES, mmToPoints } from '@foglio/core';

/** Media are rounded to whole millimetres or hundredths of an inch on their way, so half a millimetre counts as equal. */
export const SAME_HUNDREDTHS = 50;

/** The PWG 5101.1 name of a measure in hundredths of a millimetre, as media-size has it (PWG 5100.3, 3.13.8). */
export function mediaSizeName(x: number, y: number): string {
  const same = (points: number, hundredths: number): boolean =>
    Math.abs(points - mmToPoints(hundredths / 100)) <= mmToPoints(SAME_HUNDREDTHS / 100);
  const [short, long] = [Math.min(x, y), Math.max(x, y)];
  const known = KNOWN_SIZES.find((size) => same(size.width, short) && same(size.height, long));
  return known?.name ?? `custom_page_${short / 100}x${long / 100}mm`;
}
