import { KNOWN_SIZES, matchSize, mmToPoints, pointsToMm, readSizeName, saySize } from '../src';

/**
 * ISO 216, table 1 (A and B series) in millimetres, and ANSI/ASME Y14.1 sizes in inches; from memory, as printed in
 * every paper table.
 */
const STANDARD: [string, number, number, 'mm' | 'in'][] = [
  ['iso_a3_297x420mm', 297, 420, 'mm'],
  ['iso_a4_210x297mm', 210, 297, 'mm'],
  ['iso_a5_148x210mm', 148, 210, 'mm'],
  ['iso_a6_105x148mm', 105, 148, 'mm'],
  ['iso_b4_250x353mm', 250, 353, 'mm'],
  ['iso_b5_176x250mm', 176, 250, 'mm'],
  ['na_letter_8.5x11in', 8.5, 11, 'in'],
  ['na_legal_8.5x14in', 8.5, 14, 'in'],
  ['na_ledger_11x17in', 11, 17, 'in'],
];

test.each(STANDARD)('%s measures what its standard says', (name, width, height, unit) => {
  const points = (length: number): number => (unit === 'mm' ? mmToPoints(length) : length * 72);
  const size = KNOWN_SIZES.find((one) => one.name === name);
  expect(size?.width).toBeCloseTo(points(width), 6);
  expect(size?.height).toBeCloseTo(points(height), 6);
});

test('each A size is half of the one before, cut across, rounded down to the millimetre (ISO 216, 2.1)', () => {
  const series = ['a2', 'a3', 'a4', 'a5', 'a6', 'a7'].map((name) => {
    const { width, height } = KNOWN_SIZES.find((one) => one.name.startsWith(`iso_${name}_`))!;
    return [Math.round(pointsToMm(width)), Math.round(pointsToMm(height))] as const;
  });
  for (let index = 1; index < series.length; index += 1) {
    const [width, height] = series[index - 1]!;
    expect(series[index]).toEqual([Math.floor(height / 2), width]);
  }
});

test('names follow the naming rule of PWG 5101.1: portrait frame, class_size_WxHunit', () => {
  for (const { name, width, height } of KNOWN_SIZES) {
    expect(readSizeName(name)).toEqual({ width, height });
    expect(width).toBeLessThanOrEqual(height);
  }
  expect(readSizeName('A4')).toBeNull();
});

test('a page is matched within 3 pt on each edge, turned either way; otherwise it keeps its own measure', () => {
  expect(matchSize(595, 842).name).toBe('iso_a4_210x297mm');
  expect(matchSize(842, 595).name).toBe('iso_a4_210x297mm');
  expect(matchSize(597.9, 839).name).toBe('iso_a4_210x297mm');
  expect(matchSize(598.6, 842).name).toBe('custom_page_211.2x297mm');
  expect(matchSize(400, 200)).toEqual({ name: 'custom_page_70.6x141.1mm', width: 200, height: 400 });
});

test('sizes in words', () => {
  expect(saySize('iso_a4_210x297mm')).toBe('A4');
  expect(saySize('na_letter_8.5x11in')).toBe('US Letter');
  expect(saySize('jis_b5_182x257mm')).toBe('JIS B5');
  expect(saySize('custom_page_70.6x141.1mm')).toBe('70.6 × 141.1 mm');
  expect(saySize('na_index-4x6_4x6in')).toBe('101.6 × 152.4 mm');
  expect(saySize('odd')).toBe('odd');
});
