import { PDFArray, PDFDict, PDFName, PDFRef, type PDFObject } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';
import { damaged, PdfError } from './pdf-error';

/** Entries a page may inherit from its ancestors (ISO 32000-1, 7.7.3.4). UserUnit is not among them. */
const INHERITED = ['Resources', 'MediaBox', 'CropBox', 'Rotate'] as const;

type InheritedName = (typeof INHERITED)[number];

/** A page with what it inherits resolved. */
export interface PageNode {
  /** The page's object, as "12 0 R"; null where it stands within the tree itself. */
  readonly ref: string | null;
  readonly dict: PDFDict;
  readonly inherited: Readonly<Partial<Record<InheritedName, PDFObject>>>;
}

/** More pages than any selection may name, so a malformed tree ends in an error instead of filling the memory. */
const MAX_PAGES = 100_000;
const MAX_DEPTH = 1_000;

interface Pending {
  readonly node: PDFObject | undefined;
  readonly inherited: PageNode['inherited'];
  readonly depth: number;
}

/**
 * The pages of a document in order. Walks the tree with a stack of its own and remembers where it was, since a tree
 * may be cyclic or deep by mistake or malice.
 *
 * @throws PdfError where the tree is cyclic, too deep, too large, or points at a page that is not there
 */
export function listPages({ context, catalog }: OpenPdf): PageNode[] {
  const pages: PageNode[] = [];
  const visited = new Set<PDFObject>();
  const pending: Pending[] = [{ node: catalog.get(PDFName.of('Pages')), inherited: {}, depth: 0 }];
  for (let next = pending.pop(); next; next = pending.pop()) {
    const { node, depth } = next;
    if (node instanceof PDFRef) {
      if (visited.has(node)) throw damaged('its page tree leads back to itself');
      visited.add(node);
    }
    const dict = context.lookup(node);
    if (!(dict instanceof PDFDict)) throw damaged(`page ${pages.length + 1} is missing from the file`);
    if (depth > MAX_DEPTH) throw damaged('its page tree is too deep');
    const inherited = inherit(dict, next.inherited);
    const kids = context.lookup(dict.get(PDFName.of('Kids')));
    if (kids instanceof PDFArray) {
      for (let index = kids.size() - 1; index >= 0; index -= 1) {
        pending.push({ node: kids.get(index), inherited, depth: depth + 1 });
      }
    } else if (dict.get(PDFName.of('Type')) !== PDFName.of('Pages')) {
      pages.push({ ref: node instanceof PDFRef ? node.toString() : null, dict, inherited });
      if (pages.length > MAX_PAGES) throw new PdfError('damaged', `This PDF has more than ${MAX_PAGES} pages.`);
    }
  }
  if (pages.length === 0) throw new PdfError('no-pages', 'This PDF has no pages.');
  return pages;
}

function inherit(dict: PDFDict, from: PageNode['inherited']): PageNode['inherited'] {
  let inherited = from;
  for (const name of INHERITED) {
    const own = dict.get(PDFName.of(name));
    if (own !== undefined) inherited = { ...inherited, [name]: own };
  }
  return inherited;
}
