import { findSize, KNOWN_SIZES, matchSize, pointsToMm, readSizeName, saySize } from '../src';

const millimetres = (name: string): [number, number] => {
  const { width, height } = KNOWN_SIZES.find((one) => one.name.startsWith(`${name}_`))!;
  return [Math.round(pointsToMm(width)), Math.round(pointsToMm(height))];
};
const SERIES = Array.from({ length: 11 }, (_, index) => index);

test('there are at least 40 media, each once', () => {
  expect(KNOWN_SIZES.length).toBeGreaterThanOrEqual(40);
  expect(new Set(KNOWN_SIZES.map(({ name }) => name)).size).toBe(KNOWN_SIZES.length);
});

/** ISO 216, 2.1: A0 is a square metre, its edges as 1 to the root of 2; B0 is 1 m wide; measures from memory. */
test.each([
  ['iso_a', [841, 1189]],
  ['iso_b', [1000, 1414]],
] as const)('%s0 has the measure of the standard, and every size is half of the one before', (series, first) => {
  expect(millimetres(`${series}0`)).toEqual([...first]);
  for (const index of SERIES.slice(1)) {
    const [width, height] = millimetres(`${series}${index - 1}`);
    // Cut across the long edge, rounded down to the millimetre (ISO 216, 2.1).
    expect(millimetres(`${series}${index}`)).toEqual([Math.floor(height / 2), width]);
  }
  expect(first[1] / first[0]).toBeCloseTo(Math.SQRT2, 2);
});

test('A0 is a square metre (ISO 216, 2.1)', () => {
  const [width, height] = millimetres('iso_a0');
  expect((width * height) / 1e6).toBeCloseTo(1, 3);
});

test('C sizes lie between A and B: the geometric mean of both (ISO 269, 3)', () => {
  for (const index of [3, 4, 5, 6, 7]) {
    const mean = (edge: 0 | 1): number =>
      Math.sqrt(millimetres(`iso_a${index}`)[edge] * millimetres(`iso_b${index}`)[edge]);
    const [width, height] = millimetres(`iso_c${index}`);
    expect(Math.abs(width - mean(0))).toBeLessThan(1.5);
    expect(Math.abs(height - mean(1))).toBeLessThan(1.5);
  }
});

test('ANSI sizes A to E double one another (ANSI/ASME Y14.1; from memory)', () => {
  const names = ['na_letter', 'na_ledger', 'na_c', 'na_d', 'na_e'];
  const inches = names.map((name) => {
    const { width, height } = KNOWN_SIZES.find((one) => one.name.startsWith(`${name}_`))!;
    return [width / 72, height / 72] as const;
  });
  expect(inches[0]).toEqual([8.5, 11]);
  for (let index = 1; index < inches.length; index += 1) {
    const [width, height] = inches[index - 1]!;
    expect(inches[index]).toEqual([height, width * 2]);
  }
});

test('names follow the naming rule of PWG 5101.1: portrait frame, class_size_WxHunit', () => {
  for (const { name, width, height } of KNOWN_SIZES) {
    const [, family, short, measure] = /^(iso|jis|na)_([a-z0-9-]+)_([0-9.]+x[0-9.]+(?:mm|in))$/.exec(name)!;
    expect([family, short, measure].join('_')).toBe(name);
    expect(measure!.endsWith('in')).toBe(family === 'na');
    expect(readSizeName(name)).toEqual({ width, height });
    expect(width).toBeLessThanOrEqual(height);
  }
  expect(readSizeName('A4')).toBeNull();
  expect([readSizeName('iso_a4_0x0mm'), readSizeName('iso_a4_210x0mm')]).toEqual([null, null]);
  expect(readSizeName('custom_wide_300x200mm')).toEqual(readSizeName('custom_wide_200x300mm'));
});

test('a size is found by its whole name, its class and size, or the size alone', () => {
  expect(findSize('a4')?.name).toBe('iso_a4_210x297mm');
  expect(findSize('b5')?.name).toBe('iso_b5_176x250mm');
  expect(findSize('jis_b5')?.name).toBe('jis_b5_182x257mm');
  expect(findSize('tabloid')?.name).toBe('na_ledger_11x17in');
  expect(findSize('custom_card_55x85mm')).toEqual({
    name: 'custom_card_55x85mm',
    ...readSizeName('custom_card_55x85mm'),
  });
  expect(findSize('a44')).toBeNull();
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
