import {
  decodePDFRawStream,
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
import { operations, type Operand } from './content-stream';
import { pageContent } from './page-content';
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
}

/**
 * Whether anything a page paints is coded in colour, and so may be billed as colour: an operator, image, shading or
 * pattern whose colour space holds colours, save pure black and white, which printers print with black alone (common
 * practice). ISO 32000-1, 8.6.
 */
export function codesColor(page: PageNode, context: PDFContext): boolean {
  const scan: Scan = { context, seen: new Set() };
  const resources = dictOf(page.inherited.Resources, context);
  const { streams: contents } = pageContent(page, context);
  if (contents.length > 0 && paintsColor(contents, resources, scan, 0)) return true;
  return printedAnnotations(page, context).some(({ appearance }) => {
    const stream = context.lookup(appearance);
    return stream instanceof PDFRawStream && formCodesColor(stream, resources, scan, 0);
  });
}

function formCodesColor(form: PDFRawStream, outer: PDFDict | null, scan: Scan, depth: number): boolean {
  if (scan.seen.has(form) || depth > DEEPEST) return false;
  scan.seen.add(form);
  const own = dictOf(form.dict.get(PDFName.of('Resources')), scan.context);
  return paintsColor([form], own ?? outer, scan, depth);
}

/** What an operator of a content stream paints or sets: true where that is coded in colour. */
type Painting = (operands: readonly Operand[]) => boolean;

function paintsColor(streams: readonly PDFRawStream[], resources: PDFDict | null, scan: Scan, depth: number): boolean {
  const paintings = paintingsOf(resources, scan, depth);
  for (const { operator, operands } of operations(streams.map(decoded))) {
    if (paintings[operator]?.(operands)) return true;
  }
  return false;
}

/** The operators that have to do with colour (ISO 32000-1, 8.6.8, table 74, and what paints an object). */
function paintingsOf(resources: PDFDict | null, scan: Scan, depth: number): Readonly<Record<string, Painting>> {
  const find = (kind: string, name: Operand | undefined): PDFObject | undefined => {
    const group = dictOf(resources?.get(PDFName.of(kind)), scan.context);
    return typeof name === 'string' ? group?.get(PDFName.of(name)) : undefined;
  };
  const spaceNamed = (name: Operand | undefined): Space =>
    spaceOf(find('ColorSpace', name) ?? (typeof name === 'string' ? PDFName.of(name) : undefined), scan.context);
  const rgb: Painting = (operands) => isColor('rgb', operands);
  const cmyk: Painting = (operands) => isColor('cmyk', operands);
  const current: { fill: Space; stroke: Space } = { fill: 'gray', stroke: 'gray' };
  const chosen =
    (which: keyof typeof current): Painting =>
    ([name]) => {
      current[which] = spaceNamed(name);
      return false;
    };
  const inSpace =
    (which: keyof typeof current): Painting =>
    (operands) =>
      current[which] === 'pattern'
        ? patternCodesColor(find('Pattern', operands.at(-1)), resources, scan, depth)
        : isColor(current[which], operands);
  return {
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
  };
}

/** Numbers of a colour: equal red, green and blue are coded in colour unless they are black or white. */
function isColor(space: Space, operands: readonly Operand[]): boolean {
  const numbers = operands.filter((one) => typeof one === 'number');
  if (space === 'rgb') return !(numbers.every((one) => one === 0) || numbers.every((one) => one === 1));
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
    return decodePDFRawStream(stream).decode();
  } catch {
    return new Uint8Array();
  }
}
