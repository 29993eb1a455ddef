import { PDFArray, PDFDict, PDFHexString, PDFName, PDFString, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';
import { nameOf, dictOf } from './pdf-object';

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

/** All of a name tree (ISO 32000-1, 7.9.6), one that leads back to itself to its end. */
function treeEntries(root: PDFObject | undefined, context: PDFContext): ReadonlyMap<string, PDFObject> {
  const entries = new Map<string, PDFObject>();
  const visited = new Set<PDFDict>();
  const pending = [root];
  while (pending.length > 0) {
    const node = dictOf(pending.pop(), context);
    if (!node || visited.has(node)) continue;
    visited.add(node);
    const kids = context.lookup(node.get(PDFName.of('Kids')));
    if (kids instanceof PDFArray) for (const kid of kids.asArray()) pending.push(kid);
    const names = context.lookup(node.get(PDFName.of('Names')));
    if (!(names instanceof PDFArray)) continue;
    for (let at = 0; at + 1 < names.size(); at += 2) {
      const key = keyOf(context.lookup(names.get(at)));
      if (key !== null) entries.set(key, names.get(at + 1));
    }
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
