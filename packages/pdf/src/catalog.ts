import { PDFHexString, PDFName, type PDFContext, type PDFDict, type PDFRef } from '@cantoo/pdf-lib';
import type { Sheet, Ticket } from '@foglio/core';
import { optionalContent, type Layers } from './optional-content';

/** One page of the imposed file: which side of which sheet it is. */
export interface ImposedPage {
  readonly sheet: Sheet;
  readonly which: 'front' | 'back';
}

/** The catalog of an imposed file: its pages with their labels, the layers of its sources, and the ticket. */
export function catalogObject(
  pagesRef: PDFRef,
  pages: readonly ImposedPage[],
  layers: readonly Layers[],
  ticket: Ticket,
  target: PDFContext,
): PDFDict {
  const catalog = target.obj({
    Type: 'Catalog',
    Pages: pagesRef,
    PageLabels: { Nums: pages.flatMap((page, index) => [index, { P: PDFHexString.fromText(labelOf(page)) }]) },
    Names: attachment('ticket.json', JSON.stringify(ticket, null, 2), target),
  });
  const content = optionalContent(layers, target);
  if (content) catalog.set(PDFName.of('OCProperties'), content);
  return catalog;
}

/** "Sheet 3 back": what a reader's page field shows (ISO 32000-1, 12.4.2). A slip between sets has no number. */
function labelOf({ sheet, which }: ImposedPage): string {
  if (sheet.slip) return sheet.index === 0 ? 'Slip' : `Sheet ${sheet.index} slip`;
  return `Sheet ${sheet.index} ${which}`;
}

/** A names dictionary with one embedded file (ISO 32000-1, 7.11.4). */
function attachment(name: string, text: string, target: PDFContext): PDFDict {
  const bytes = new TextEncoder().encode(text);
  const file = target.register(
    target.flateStream(bytes, { Type: 'EmbeddedFile', Subtype: 'application/json', Params: { Size: bytes.length } }),
  );
  const title = PDFHexString.fromText(name);
  const spec = target.register(target.obj({ Type: 'Filespec', F: title, UF: title, EF: { F: file, UF: file } }));
  return target.obj({ EmbeddedFiles: { Names: [title, spec] } });
}
