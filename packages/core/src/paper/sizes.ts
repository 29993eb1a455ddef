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
 * The sizes a page is matched to. Names as in PWG 5101.1-2013, section 5 (tables of ISO, North American and other
 * media), with the measures of ISO 216 for the A and B series and ISO 269 for the C series.
 */
const NAMES = [
  'iso_a2_420x594mm',
  'iso_a3_297x420mm',
  'iso_a4_210x297mm',
  'iso_a5_148x210mm',
  'iso_a6_105x148mm',
  'iso_a7_74x105mm',
  'iso_b4_250x353mm',
  'iso_b5_176x250mm',
  'iso_b6_125x176mm',
  'iso_c4_229x324mm',
  'iso_c5_162x229mm',
  'iso_c6_114x162mm',
  'iso_dl_110x220mm',
  'jis_b4_257x364mm',
  'jis_b5_182x257mm',
  'na_letter_8.5x11in',
  'na_legal_8.5x14in',
  'na_ledger_11x17in',
  'na_executive_7.25x10.5in',
  'na_invoice_5.5x8.5in',
  'na_foolscap_8.5x13in',
  'na_index-4x6_4x6in',
  'na_number-10_4.125x9.5in',
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
  return { width: toPoints(Number(match[1])), height: toPoints(Number(match[2])) };
}

/** Every known size, in the order of preference used where two lie equally near. */
export const KNOWN_SIZES: readonly NamedSize[] = NAMES.map((name) => ({ name, ...(readSizeName(name) as Size) }));

const oneDecimal = (value: number): string => String(Math.round(value * 10) / 10);

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
    const dx = Math.abs(size.width - short);
    const dy = Math.abs(size.height - long);
    if (dx <= SAME_SIZE_POINTS && dy <= SAME_SIZE_POINTS && dx + dy < bestDistance) {
      best = size;
      bestDistance = dx + dy;
    }
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
