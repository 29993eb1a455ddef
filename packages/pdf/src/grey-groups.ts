import { PDFArray, PDFDict, PDFName, PDFStream, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { nameOf } from './pdf-object';

/** Modes in which two greys of black ink alone make ink of the other colours (ISO 32000-1, 11.3.5.2 and 11.7.4.2). */
const INKS_FROM_GREYS = ['Difference', 'Exclusion'];

/**
 * Takes from a file whose colours have all become greys what could bring inks back: the colours that groups are blended in, and a
 * mode of blending that takes hue and brightness apart, which printers reckon in colours. Of a grey its brightness is all there is.
 */
export function takeGroupColors(context: PDFContext): void {
  for (const dict of dictsUnder([context.trailerInfo.Root], context)) mend(dict, context);
}

/** Whether what these lead to is blended so that it makes ink of other colours. */
export const blendsIntoInks = (objects: readonly (PDFObject | undefined)[], context: PDFContext): boolean =>
  dictsUnder(objects, context).some((dict) => {
    const mode = context.lookup(dict.get(BLEND_MODE));
    // Of several the first that is known counts (table 58).
    const name = nameOf(mode instanceof PDFArray ? mode.get(0) : mode, context);
    return name !== null && INKS_FROM_GREYS.includes(name);
  });

const BLEND_MODE = PDFName.of('BM');
const GROUP = PDFName.of('Group');
const COLORS = PDFName.of('CS');
const PARENT = PDFName.of('Parent');

function dictsUnder(objects: readonly (PDFObject | undefined)[], context: PDFContext): PDFDict[] {
  const dicts: PDFDict[] = [];
  const visited = new Set<PDFObject>();
  const pending = [...objects];
  while (pending.length > 0) {
    const object = context.lookup(pending.pop());
    if (object === undefined || visited.has(object)) continue;
    visited.add(object);
    if (object instanceof PDFArray) pending.push(...object.asArray());
    const dict = object instanceof PDFStream ? object.dict : object;
    if (!(dict instanceof PDFDict)) continue;
    dicts.push(dict);
    for (const [name, value] of dict.entries()) if (name !== PARENT) pending.push(value);
  }
  return dicts;
}

function mend(dict: PDFDict, context: PDFContext): void {
  const group = context.lookup(dict.get(GROUP));
  if (group instanceof PDFDict) group.delete(COLORS);
  if (nameOf(dict.get(BLEND_MODE), context) === 'Luminosity') dict.set(BLEND_MODE, PDFName.of('Normal'));
  // Of a mask that tells by brightness the colours have to be said (table 147); it is not painted.
  if (nameOf(dict.get(PDFName.of('S')), context) !== 'Luminosity') return;
  const mask = context.lookup(dict.get(PDFName.of('G')));
  const masking = mask instanceof PDFStream ? context.lookup(mask.dict.get(GROUP)) : undefined;
  if (masking instanceof PDFDict) masking.set(COLORS, PDFName.of('DeviceGray'));
}
