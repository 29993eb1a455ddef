import { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import type { OpenPdf } from '../open';

/** A heading of a document that was laid out, and the name of the place in it where it stands. */
export interface NamedHeading {
  readonly name: string;
  readonly title: string;
  /** From 1, the top. */
  readonly level: number;
}

interface Entry {
  readonly ref: PDFRef;
  readonly dict: PDFDict;
  readonly level: number;
  readonly children: Entry[];
}

/**
 * Gives a PDF an outline of places that it names (ISO 32000-1, 12.3.2.3 and 12.3.3). Headings whose place it does not name,
 * since they were not drawn, are left out.
 *
 * @param headings in their order
 */
export function addOutline({ catalog, context }: OpenPdf, headings: readonly NamedHeading[]): void {
  const places = catalog.lookupMaybe(PDFName.of('Dests'), PDFDict);
  const root: Entry = { ref: context.nextRef(), dict: context.obj({ Type: 'Outlines' }), level: 0, children: [] };
  const open: Entry[] = [root];
  for (const { name, title, level } of headings) {
    const place = places?.lookupMaybe(PDFName.of(name), PDFArray);
    if (!place) continue;
    const dict = context.obj({ Title: PDFHexString.fromText(title), Dest: place });
    const entry: Entry = { ref: context.nextRef(), dict, level, children: [] };
    while (open.at(-1)!.level >= level) open.pop();
    open.at(-1)!.children.push(entry);
    open.push(entry);
  }
  if (root.children.length === 0) return;
  write(root, context);
  catalog.set(PDFName.of('Outlines'), root.ref);
}

/** Headings nest six deep at most. */
function write({ ref, dict, children }: Entry, context: PDFContext): void {
  const [first, last] = [children[0], children.at(-1)];
  if (first && last) {
    dict.set(PDFName.of('First'), first.ref);
    dict.set(PDFName.of('Last'), last.ref);
    dict.set(PDFName.of('Count'), PDFNumber.of(children.length));
  }
  children.forEach((child, at) => {
    child.dict.set(PDFName.of('Parent'), ref);
    const [before, next] = [children[at - 1], children[at + 1]];
    if (before) child.dict.set(PDFName.of('Prev'), before.ref);
    if (next) child.dict.set(PDFName.of('Next'), next.ref);
    write(child, context);
  });
  context.assign(ref, dict);
}
