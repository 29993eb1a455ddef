import { PDFArray, PDFDict, PDFHexString, PDFName, PDFString, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';
import { nameOf, dictOf } from './pdf-object';
import { treePairs } from './tree-pairs';

/** Finds a destination by its name. */
export type FindDestination = (name: PDFObject | undefined) => PDFObject | undefined;

/**
 * The destinations that a document names (ISO 32000-1, 12.3.2.3): as strings in a tree, since PDF 1.2, and as names in a
 * dictionary before it. The tree is read whole when the first is asked for.
 */
export function namedDestinations({ catalog, context }: OpenPdf): FindDestination {
  let strings: ReadonlyMap<string, PDFObject> | null = null;
  const names = dictOf(catalog.get(PDFName.of('Dests')), context);
  const tree = dictOf(catalog.get(PDFName.of('Names')), context)?.get(PDFName.of('Dests'));
  return (name) => {
    if (name instanceof PDFName) return names?.get(name);
    const key = keyOf(name);
    if (key === null) return undefined;
    strings ??= treeEntries(tree, context);
    return strings.get(key);
  };
}

/** The letters of a string, whichever way it is written. */
const keyOf = (object: PDFObject | undefined): string | null =>
  object instanceof PDFString || object instanceof PDFHexString
    ? Buffer.from(object.asBytes()).toString('latin1')
    : null;

function treeEntries(root: PDFObject | undefined, context: PDFContext): ReadonlyMap<string, PDFObject> {
  const entries = new Map<string, PDFObject>();
  for (const [key, value] of treePairs(root, 'Names', context)) {
    const letters = keyOf(key);
    if (letters !== null) entries.set(letters, value);
  }
  return entries;
}

/** Where an outline entry leads: by its destination, or by an action that goes there; null where it leads elsewhere. */
export function destinationOf(entry: PDFDict, { context }: OpenPdf, named: FindDestination): PDFArray | null {
  const action = dictOf(entry.get(PDFName.of('A')), context);
  const goes =
    action && nameOf(action.get(PDFName.of('S')), context) === 'GoTo' ? action.get(PDFName.of('D')) : undefined;
  const told = context.lookup(entry.get(PDFName.of('Dest')) ?? goes);
  const found = context.lookup(told instanceof PDFArray ? told : named(told));
  const destination = found instanceof PDFDict ? context.lookup(found.get(PDFName.of('D'))) : found;
  return destination instanceof PDFArray && destination.size() > 0 ? destination : null;
}
