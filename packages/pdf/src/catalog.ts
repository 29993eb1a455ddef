import { PDFHexString, PDFName, type PDFContext, type PDFDict, type PDFRef } from '@cantoo/pdf-lib';
import { isInformationSheet, type Sheet, type Ticket } from '@foglio/core';
import { packedStream } from './objects/flate';
import { optionalContent, type Layers } from './optional-content';

/** One page of the imposed file: which side of which sheet it is. */
export interface ImposedPage {
  readonly sheet: Sheet;
  readonly which: 'front' | 'back';
}

/** The catalog of an imposed file: its pages, and the layers of its sources. */
export function catalogObject(pagesRef: PDFRef, layers: readonly Layers[], target: PDFContext): PDFDict {
  const catalog = target.obj({ Type: 'Catalog', Pages: pagesRef });
  const content = optionalContent(layers, target);
  if (content) catalog.set(PDFName.of('OCProperties'), content);
  return catalog;
}

/** Says in an imposed file what it is: a label on each page, the ticket attached, its title. */
export function describeFile(
  target: PDFContext,
  catalog: PDFDict,
  pages: readonly ImposedPage[],
  ticket: Ticket,
): void {
  const labels = pages.flatMap((page, index) => [index, { P: PDFHexString.fromText(labelOf(page)) }]);
  catalog.set(PDFName.of('PageLabels'), target.obj({ Nums: labels }));
  catalog.set(PDFName.of('Names'), attachment('ticket.json', JSON.stringify(ticket, null, 2), target));
  target.trailerInfo.Info = target.register(
    target.obj({ Title: PDFHexString.fromText(ticket.title), Producer: PDFHexString.fromText('Foglio') }),
  );
}

/** "Sheet 3 back": what a reader's page field shows (ISO 32000-1, 12.4.2). What stands in no set has no number. */
function labelOf({ sheet, which }: ImposedPage): string {
  if (isInformationSheet(sheet)) return `Information sheet ${which}`;
  if (sheet.slip) return sheet.index === 0 ? 'Slip' : `Sheet ${sheet.index} slip`;
  return `Sheet ${sheet.index} ${which}`;
}

/** A names dictionary with one embedded file (ISO 32000-1, 7.11.4). */
function attachment(name: string, text: string, target: PDFContext): PDFDict {
  const bytes = new TextEncoder().encode(text);
  const file = target.register(
    packedStream(bytes, { Type: 'EmbeddedFile', Subtype: 'application/json', Params: { Size: bytes.length } }, target),
  );
  const title = PDFHexString.fromText(name);
  const spec = target.register(target.obj({ Type: 'Filespec', F: title, UF: title, EF: { F: file, UF: file } }));
  return target.obj({ EmbeddedFiles: { Names: [title, spec] } });
}
