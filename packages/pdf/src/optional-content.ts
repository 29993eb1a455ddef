import { PDFArray, type PDFDict, PDFName, PDFRef, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';
import { dictOf } from './pdf-object';

/** The layers of a document, and which of them are off on paper. */
export interface Layers {
  readonly all: readonly PDFRef[];
  readonly off: readonly PDFRef[];
}

/**
 * The layers of a document as they stand when it is printed (ISO 32000-1, 8.11.4): the default configuration's states,
 * then what its usage application dictionaries for printing say of each layer's PrintState.
 */
export function layersOf({ catalog, context }: Pick<OpenPdf, 'catalog' | 'context'>): Layers {
  const properties = dictOf(catalog.get(PDFName.of('OCProperties')), context);
  if (!properties) return { all: [], off: [] };
  const all = refsOf(properties.get(PDFName.of('OCGs')), context);
  const config = dictOf(properties.get(PDFName.of('D')), context);
  const startsOff = config?.get(PDFName.of('BaseState')) === PDFName.of('OFF');
  const off = new Set<PDFRef>(startsOff ? all : []);
  for (const ref of refsOf(config?.get(PDFName.of('ON')), context)) off.delete(ref);
  for (const ref of refsOf(config?.get(PDFName.of('OFF')), context)) off.add(ref);
  for (const ref of layersSetForPrinting(config, context)) {
    const state = printState(ref, context);
    if (state === 'ON') off.delete(ref);
    if (state === 'OFF') off.add(ref);
  }
  return { all, off: all.filter((ref) => off.has(ref)) };
}

/** The layers whose state a printing viewer sets by their usage (ISO 32000-1, table 103). */
function layersSetForPrinting(config: PDFDict | null, context: PDFContext): PDFRef[] {
  const applications = context.lookup(config?.get(PDFName.of('AS')));
  if (!(applications instanceof PDFArray)) return [];
  return applications.asArray().flatMap((entry) => {
    const application = dictOf(entry, context);
    if (application?.get(PDFName.of('Event')) !== PDFName.of('Print')) return [];
    return refsOf(application.get(PDFName.of('OCGs')), context);
  });
}

function printState(layer: PDFRef, context: PDFContext): 'ON' | 'OFF' | null {
  const usage = dictOf(dictOf(layer, context)?.get(PDFName.of('Usage')), context);
  const state = dictOf(usage?.get(PDFName.of('Print')), context)?.get(PDFName.of('PrintState'));
  if (state === PDFName.of('ON')) return 'ON';
  return state === PDFName.of('OFF') ? 'OFF' : null;
}

/** The entry of a catalog that says so for the layers of all documents, or null where there are none. */
export function optionalContent(layers: readonly Layers[], target: PDFContext): PDFDict | null {
  const all = [...new Set(layers.flatMap((one) => one.all))];
  if (all.length === 0) return null;
  const off = [...new Set(layers.flatMap((one) => one.off))];
  return target.obj({ OCGs: all, D: { BaseState: 'ON', OFF: off } });
}

function refsOf(object: PDFObject | undefined, context: PDFContext): PDFRef[] {
  const array = context.lookup(object);
  return array instanceof PDFArray ? array.asArray().filter((entry) => entry instanceof PDFRef) : [];
}
