/**
 * Paper sizes, known by their PWG 5101.1 self-describing names. The name is the only description: the measure is read
 * from its last part, so no size is written down twice.
 */

/** Width and height in points (1/72 inch), in the portrait frame: width is never more than height. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

export interface NamedSize extends Size {
  /** PWG 5101.1 media size name. */
  readonly name: string;
}

const POINTS_PER_INCH = 72;
const MM_PER_INCH = 25.4;

/** How far, in points, an edge of a page may be from a known size and still be that size (model, Planning 3). */
const SAME_SIZE_POINTS = 3;

/** Millimetres to points. */
export const mmToPoints = (mm: number): number => (mm * POINTS_PER_INCH) / MM_PER_INCH;

/** Points to millimetres. */
export const pointsToMm = (points: number): number => (points * MM_PER_INCH) / POINTS_PER_INCH;

/**
 * The sizes a page is matched to, named by the rule of PWG 5101.1-2013, section 5.1: class, size name and measure, the
 * short edge first, in the unit of the standard the size comes from. Measures: ISO 216 (A and B series), ISO 269 (C
 * series and DL), JIS P 0138 (JIS B series), ANSI/ASME Y14.1 (A to E), and North American practice for the rest. The list
 * is typed from memory of the standard's tables; `paper.test.ts` checks what can be checked by rule.
 */
const NAMES = [
  'iso_a0_841x1189mm',
  'iso_a1_594x841mm',
  'iso_a2_420x594mm',
  'iso_a3_297x420mm',
  'iso_a4_210x297mm',
  'iso_a5_148x210mm',
  'iso_a6_105x148mm',
  'iso_a7_74x105mm',
  'iso_a8_52x74mm',
  'iso_a9_37x52mm',
  'iso_a10_26x37mm',
  'iso_b0_1000x1414mm',
  'iso_b1_707x1000mm',
  'iso_b2_500x707mm',
  'iso_b3_353x500mm',
  'iso_b4_250x353mm',
  'iso_b5_176x250mm',
  'iso_b6_125x176mm',
  'iso_b7_88x125mm',
  'iso_b8_62x88mm',
  'iso_b9_44x62mm',
  'iso_b10_31x44mm',
  'iso_c3_324x458mm',
  'iso_c4_229x324mm',
  'iso_c5_162x229mm',
  'iso_c6_114x162mm',
  'iso_c7_81x114mm',
  'iso_dl_110x220mm',
  'jis_b4_257x364mm',
  'jis_b5_182x257mm',
  'jis_b6_128x182mm',
  'na_letter_8.5x11in',
  'na_legal_8.5x14in',
  'na_ledger_11x17in',
  'na_executive_7.25x10.5in',
  'na_invoice_5.5x8.5in',
  'na_foolscap_8.5x13in',
  'na_index-3x5_3x5in',
  'na_index-4x6_4x6in',
  'na_5x7_5x7in',
  'na_10x14_10x14in',
  'na_number-10_4.125x9.5in',
  'na_c_17x22in',
  'na_d_22x34in',
  'na_e_34x44in',
] as const;

const SIZE_NAME = /^[a-z0-9-]+_[a-z0-9.-]+_(\d+(?:\.\d+)?)x(\d+(?:\.\d+)?)(mm|in)$/;

/**
 * The measure a PWG 5101.1 size name states, in points, or null where the text is not such a name.
 * Source: PWG 5101.1-2013, section 5.1 (media size self-describing names).
 */
export function readSizeName(name: string): Size | null {
  const match = SIZE_NAME.exec(name);
  if (!match) return null;
  const toPoints = match[3] === 'mm' ? mmToPoints : (inches: number): number => inches * POINTS_PER_INCH;
  const edges = [toPoints(Number(match[1])), toPoints(Number(match[2]))] as const;
  // A measure of nothing, or no number at all ("1.2.3"), is none.
  if (!edges.every((edge) => edge > 0)) return null;
  // A name whose long edge stands first is against the rule, but what it means is plain.
  return { width: Math.min(...edges), height: Math.max(...edges) };
}

/** Every known size, in the order of preference used where two lie equally near. */
export const KNOWN_SIZES: readonly NamedSize[] = NAMES.map((name) => ({ name, ...(readSizeName(name) as Size) }));

/** What people call a size beside its name in the standard (common practice). */
const OTHER_NAMES: Record<string, string> = { tabloid: 'ledger', statement: 'invoice' };

/**
 * The size a person means by a name: a whole PWG 5101.1 name, its class and size ("jis_b5"), or the size alone ("a4",
 * "letter"), of which the first known is taken. Null where there is none.
 */
export function findSize(name: string): NamedSize | null {
  const wanted = OTHER_NAMES[name] ?? name;
  const known = KNOWN_SIZES.find((size) => {
    const [family, short] = size.name.split('_');
    return size.name === wanted || short === wanted || `${family}_${short}` === wanted;
  });
  if (known) return known;
  const measure = readSizeName(wanted);
  return measure ? { name: wanted, ...measure } : null;
}

const oneDecimal = (value: number): string => String(Math.round(value * 10) / 10);

const isNear = (size: Size, short: number, long: number): boolean =>
  Math.abs(size.width - short) <= SAME_SIZE_POINTS && Math.abs(size.height - long) <= SAME_SIZE_POINTS;

/** Whether a page of this measure, whichever way it is turned, is matched to that size. */
export function isSize(size: NamedSize, width: number, height: number): boolean {
  // Most pages are of another size altogether, which is found without looking through the list.
  if (!isNear(size, Math.min(width, height), Math.max(width, height))) return false;
  return matchSize(width, height).name === size.name;
}

/**
 * The size a page of this measure is printed on when it asks for its own: the nearest known size within 3 pt on each
 * edge, whichever way the page is turned, otherwise a custom name with its own measure in millimetres.
 */
export function matchSize(width: number, height: number): NamedSize {
  const short = Math.min(width, height);
  const long = Math.max(width, height);
  let best: NamedSize | null = null;
  let bestDistance = Infinity;
  for (const size of KNOWN_SIZES) {
    if (!isNear(size, short, long)) continue;
    const distance = Math.abs(size.width - short) + Math.abs(size.height - long);
    if (distance >= bestDistance) continue;
    best = size;
    bestDistance = distance;
  }
  if (best) return best;
  const name = `custom_page_${oneDecimal(pointsToMm(short))}x${oneDecimal(pointsToMm(long))}mm`;
  return { name, width: short, height: long };
}

/** A size name in words: "A4", "US Letter", or the measure in millimetres where no short name is usual. */
export function saySize(name: string): string {
  const parts = name.split('_');
  const [family, short] = parts;
  if ((family === 'iso' || family === 'jis') && short) return (family === 'jis' ? 'JIS ' : '') + short.toUpperCase();
  if (family === 'na' && short && /^[a-z]+$/.test(short)) return 'US ' + short[0]?.toUpperCase() + short.slice(1);
  const size = readSizeName(name);
  if (!size) return name;
  return `${oneDecimal(pointsToMm(size.width))} × ${oneDecimal(pointsToMm(size.height))} mm`;
}
