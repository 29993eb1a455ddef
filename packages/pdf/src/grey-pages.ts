import { PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import { catalogObject } from './catalog';
import { colorCoding } from './color-coding';
import { convertToGrey, drawInGrey } from './grey';
import { blendsIntoInks, takeGroupColors } from './grey-groups';
import { decimal } from './number';
import { openPdf } from './open';
import { listPages, type PageNode } from './page-tree';
import { savePdf } from './save';
import { formOf, layersOfAll, openSources } from './source';
import { newTarget } from './target';

/** A page of a document, both counted from 1. */
export interface PageOfDocument {
  readonly document: number;
  readonly page: number;
}

/** Pages without any colour, and where each of them is. */
export interface GreyPages {
  readonly files: readonly Uint8Array[];
  /** In the order they were asked for: in which of the files, from 0, and on which of its pages, from 1. */
  readonly places: readonly { readonly file: number; readonly page: number }[];
}

/**
 * These pages without any colour, each as it is read. They are turned to grey before they are placed, so that a page placed on
 * many sheets is turned once, and pages in colour may lie beside it. Where colour is left all the same, since the page blends its
 * colours so that even greys make others, or hides them from the program, it becomes a picture.
 *
 * @throws PdfError where a source cannot be read, or Ghostscript is missing
 */
export async function greyPages(sources: readonly Uint8Array[], wanted: readonly PageOfDocument[]): Promise<GreyPages> {
  const coloured = await filed(sources, wanted);
  const pdf = await openPdf(await convertToGrey(coloured));
  const { context } = pdf;
  takeGroupColors(context);
  const left = listPages(pdf).flatMap((node, index) => (isGrey(node, context) ? [] : [index + 1]));
  const files = [savePdf(pdf), ...(left.length > 0 ? [await drawInGrey(coloured, left)] : [])];
  const places = wanted.map((_, index) => {
    const drawn = left.indexOf(index + 1);
    return drawn < 0 ? { file: 0, page: index + 1 } : { file: 1, page: drawn + 1 };
  });
  return { files, places };
}

const isGrey = (node: PageNode, context: PDFContext): boolean =>
  colorCoding(node, context) !== 'color' && !blendsIntoInks([node.inherited.Resources], context);

/** A file of these pages, one after another. */
async function filed(files: readonly Uint8Array[], wanted: readonly PageOfDocument[]): Promise<Uint8Array> {
  const sources = await openSources(files);
  const target = newTarget();
  const { context } = target;
  const pagesRef = context.nextRef();
  const kids = wanted.map(({ document, page }): PDFRef => {
    const { ref, box } = formOf(sources[document - 1] as (typeof sources)[number], page, target);
    const object = context.obj({
      Type: 'Page',
      Parent: pagesRef,
      MediaBox: [0, 0, box.width, box.height].map((edge) => Number(decimal(edge))),
      Resources: { XObject: { P: ref } },
    });
    object.set(PDFName.of('Contents'), context.register(context.stream('/P Do')));
    return context.register(object);
  });
  context.assign(pagesRef, context.obj({ Type: 'Pages', Kids: kids, Count: kids.length }));
  context.trailerInfo.Root = context.register(catalogObject(pagesRef, layersOfAll(sources, target), context));
  return savePdf(target);
}
