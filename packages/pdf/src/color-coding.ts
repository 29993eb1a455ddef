import {
  PDFArray,
  PDFBool,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { printedAnnotations } from './annotations';
import { someOperation, visits, type Operand, type Visit, type Visits } from './content-stream';
import { unpacked } from './objects/flate';
import { contentBytes } from './page-content';
import type { PageNode } from './page-tree';
import { dictOf } from './pdf-object';

/**
 * How a colour space counts: grey whatever its numbers are; colour whatever they are; or by its numbers, three (red, green,
 * blue) or four (cyan, magenta, yellow, black).
 */
type Space = 'gray' | 'colour' | 'rgb' | 'cmyk' | 'pattern';

/** Forms within forms deeper than this are not looked into. */
const DEEPEST = 12;

interface Scan {
  readonly context: PDFContext;
  /** Streams already looked into: a form is often placed a hundred times, and may place itself. */
  readonly seen: Set<PDFObject>;
  /** Whether black was set in colours that print with black alone. */
  blackOfColors: boolean;
}

/**
 * How what a page paints is coded: in colour, and so may be billed as colour: an operator, image, shading or pattern whose colour
 * space holds colours (ISO 32000-1, 8.6). Black and white of red, green and blue are told apart from it, since most printers print
 * them with black alone and some bill them all the same (common practice).
 */
export type ColorCoding = 'color' | 'black-of-colors' | 'gray';

export function colorCoding(page: PageNode, context: PDFContext): ColorCoding {
  const scan: Scan = { context, seen: new Set(), blackOfColors: false };
  const resources = dictOf(page.inherited.Resources, context);
  if (paintsColor(contentBytes(page, context), resources, scan, 0)) return 'color';
  const inAnnotations = printedAnnotations(page, context).some(({ appearance }) => {
    const stream = context.lookup(appearance);
    return stream instanceof PDFRawStream && formCodesColor(stream, resources, scan, 0);
  });
  if (inAnnotations) return 'color';
  return scan.blackOfColors ? 'black-of-colors' : 'gray';
}

function formCodesColor(form: PDFRawStream, outer: PDFDict | null, scan: Scan, depth: number): boolean {
  if (scan.seen.has(form) || depth > DEEPEST) return false;
  scan.seen.add(form);
  const own = dictOf(form.dict.get(PDFName.of('Resources')), scan.context);
  return paintsColor(decoded(form), own ?? outer, scan, depth);
}

const paintsColor = (bytes: Uint8Array, resources: PDFDict | null, scan: Scan, depth: number): boolean =>
  someOperation(bytes, paintingsOf(resources, scan, depth));

/** The operators that have to do with colour (ISO 32000-1, 8.6.8, table 74, and what paints an object). */
function paintingsOf(resources: PDFDict | null, scan: Scan, depth: number): Visits {
  const find = (kind: string, name: Operand | undefined): PDFObject | undefined => {
    const group = dictOf(resources?.get(PDFName.of(kind)), scan.context);
    return typeof name === 'string' ? group?.get(PDFName.of(name)) : undefined;
  };
  const spaceNamed = (name: Operand | undefined): Space =>
    spaceOf(find('ColorSpace', name) ?? (typeof name === 'string' ? PDFName.of(name) : undefined), scan.context);
  const rgb: Visit = (operands) => isColor('rgb', operands, scan);
  const cmyk: Visit = (operands) => isColor('cmyk', operands, scan);
  const current: { fill: Space; stroke: Space } = { fill: 'gray', stroke: 'gray' };
  // In which a pattern without colours of its own is given one.
  const given: { fill: Space; stroke: Space } = { fill: 'gray', stroke: 'gray' };
  const chosen =
    (which: keyof typeof current): Visit =>
    ([name]) => {
      current[which] = spaceNamed(name);
      given[which] = givenSpace(find('ColorSpace', name), scan.context);
      return false;
    };
  const inSpace =
    (which: keyof typeof current): Visit =>
    (operands) =>
      current[which] === 'pattern'
        ? isColor(given[which], operands, scan) ||
          patternCodesColor(find('Pattern', operands.at(-1)), resources, scan, depth)
        : isColor(current[which], operands, scan);
  return visits({
    rg: rgb,
    RG: rgb,
    k: cmyk,
    K: cmyk,
    cs: chosen('fill'),
    CS: chosen('stroke'),
    sc: inSpace('fill'),
    scn: inSpace('fill'),
    SC: inSpace('stroke'),
    SCN: inSpace('stroke'),
    sh: ([name]) => shadingCodesColor(find('Shading', name), scan.context),
    Do: ([name]) => objectCodesColor(scan.context.lookup(find('XObject', name)), resources, scan, depth),
    BI: (operands) => isInlineImageInColor(operands, spaceNamed),
  });
}

/** Numbers of a colour: equal red, green and blue are coded in colour unless they are black or white. */
function isColor(space: Space, operands: readonly Operand[], scan: Scan): boolean {
  const numbers = operands.filter((one) => typeof one === 'number');
  if (space === 'rgb') {
    const isBlack = numbers.every((one) => one === 0);
    scan.blackOfColors ||= isBlack;
    return !isBlack && !numbers.every((one) => one === 1);
  }
  if (space === 'cmyk') return numbers.slice(0, 3).some((one) => one !== 0);
  return space === 'colour';
}

function objectCodesColor(
  object: PDFObject | undefined,
  resources: PDFDict | null,
  scan: Scan,
  depth: number,
): boolean {
  if (!(object instanceof PDFRawStream)) return false;
  const { dict } = object;
  if (dict.get(PDFName.of('Subtype')) === PDFName.of('Form')) return formCodesColor(object, resources, scan, depth + 1);
  if (scan.context.lookup(dict.get(PDFName.of('ImageMask'))) === PDFBool.True) return false;
  const space = dict.get(PDFName.of('ColorSpace'));
  // Only JPEG 2000 may leave it out, and is then coded as its own data say (ISO 32000-1, 7.4.9): colour, as a rule.
  return space === undefined || isSpaceOfColors(spaceOf(space, scan.context));
}

const isSpaceOfColors = (space: Space): boolean => space !== 'gray';

function isInlineImageInColor(operands: readonly Operand[], spaceNamed: (name: Operand | undefined) => Space): boolean {
  const value = (...names: string[]): Operand | undefined => {
    const at = operands.findIndex((one, index) => index % 2 === 0 && names.includes(String(one)));
    return at < 0 ? undefined : operands[at + 1];
  };
  if (value('IM', 'ImageMask') === 'true') return false;
  const space = value('CS', 'ColorSpace');
  const whole: Record<string, string> = { G: 'DeviceGray', RGB: 'DeviceRGB', CMYK: 'DeviceCMYK', I: 'Indexed' };
  return (
    space !== undefined && isSpaceOfColors(spaceNamed(typeof space === 'string' ? (whole[space] ?? space) : space))
  );
}

function patternCodesColor(
  object: PDFObject | undefined,
  resources: PDFDict | null,
  scan: Scan,
  depth: number,
): boolean {
  const pattern = scan.context.lookup(object);
  if (pattern instanceof PDFRawStream) return formCodesColor(pattern, resources, scan, depth + 1);
  return pattern instanceof PDFDict && shadingCodesColor(pattern.get(PDFName.of('Shading')), scan.context);
}

function shadingCodesColor(object: PDFObject | undefined, context: PDFContext): boolean {
  const shading = context.lookup(object);
  const dict = shading instanceof PDFStream ? shading.dict : shading;
  return dict instanceof PDFDict && isSpaceOfColors(spaceOf(dict.get(PDFName.of('ColorSpace')), context));
}

/** Colour spaces that their name alone tells (ISO 32000-1, 8.6.4, 8.6.5.3, 8.6.6.2). */
const BY_NAME: Readonly<Record<string, Space>> = {
  DeviceRGB: 'rgb',
  CalRGB: 'rgb',
  DeviceCMYK: 'cmyk',
  Lab: 'colour',
  Pattern: 'pattern',
};

/** ISO 32000-1, 8.6.3 to 8.6.6. */
function spaceOf(object: PDFObject | undefined, context: PDFContext, depth = 0): Space {
  const found = context.lookup(object);
  const [first, second] = found instanceof PDFArray ? [found.get(0), found.get(1)] : [found, undefined];
  const name = context.lookup(first);
  if (!(name instanceof PDFName) || depth > DEEPEST) return 'gray';
  switch (name.decodeText()) {
    case 'ICCBased':
      return spaceOfProfile(context.lookup(second), context);
    case 'Indexed':
      return isSpaceOfColors(spaceOf(second, context, depth + 1)) ? 'colour' : 'gray';
    case 'Separation':
      return isBlackInk(context.lookup(second)) ? 'gray' : 'colour';
    case 'DeviceN': {
      const inks = context.lookup(second);
      return inks instanceof PDFArray && inks.asArray().every(isBlackInk) ? 'gray' : 'colour';
    }
    default:
      return BY_NAME[name.decodeText()] ?? 'gray';
  }
}

/** ISO 32000-1, 8.7.3.3. */
function givenSpace(object: PDFObject | undefined, context: PDFContext): Space {
  const found = context.lookup(object);
  return found instanceof PDFArray && found.size() > 1 && spaceOf(found, context) === 'pattern'
    ? spaceOf(found.get(1), context)
    : 'gray';
}

/** By how many components a profile has (ISO 32000-1, 8.6.5.5). */
function spaceOfProfile(profile: PDFObject | undefined, context: PDFContext): Space {
  const components = profile instanceof PDFStream ? context.lookup(profile.dict.get(PDFName.of('N'))) : null;
  const count = components instanceof PDFNumber ? components.asNumber() : 1;
  return count === 3 ? 'rgb' : count === 4 ? 'cmyk' : 'gray';
}

/** Inks of one colour that print without a coloured one. */
const isBlackInk = (ink: PDFObject | undefined): boolean =>
  ink instanceof PDFName && ['Black', 'None', 'All'].includes(ink.decodeText());

function decoded(stream: PDFRawStream): Uint8Array {
  try {
    return unpacked(stream);
  } catch {
    return new Uint8Array();
  }
}
