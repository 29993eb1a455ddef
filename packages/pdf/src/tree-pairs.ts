import { PDFArray, type PDFDict, PDFName, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { dictOf } from './pdf-object';

/** A key of a tree, and what stands under it. */
export type Pair = readonly [key: PDFObject | undefined, value: PDFObject];

/**
 * All of a name tree or a number tree (ISO 32000-1, 7.9.6 and 7.9.7), in no order; one that leads back to itself to its end.
 *
 * @param leaves what its leaves call their pairs
 */
export function treePairs(root: PDFObject | undefined, leaves: 'Names' | 'Nums', context: PDFContext): Pair[] {
  const pairs: Pair[] = [];
  const visited = new Set<PDFDict>();
  const pending = [root];
  while (pending.length > 0) {
    const node = dictOf(pending.pop(), context);
    if (!node || visited.has(node)) continue;
    visited.add(node);
    const kids = context.lookup(node.get(PDFName.of('Kids')));
    if (kids instanceof PDFArray) for (const kid of kids.asArray()) pending.push(kid);
    const all = context.lookup(node.get(PDFName.of(leaves)));
    if (!(all instanceof PDFArray)) continue;
    for (let at = 0; at + 1 < all.size(); at += 2) pairs.push([context.lookup(all.get(at)), all.get(at + 1)]);
  }
  return pairs;
}
