import { PDFName, type PDFRef } from '@cantoo/pdf-lib';
import { catalogObject } from './catalog';
import { convertToGrey } from './grey';
import { decimal } from './number';
import { savePdf } from './save';
import { formOf, layersOfAll, openSources } from './source';
import { newTarget } from './target';

/** A page of a document, both counted from 1. */
export interface PageOfDocument {
  readonly document: number;
  readonly page: number;
}

/**
 * A file of these pages without any colour, one after another, each as it is read. They are turned to grey before they
 * are placed, so that a page placed on many sheets is turned once, and pages in colour may lie beside it.
 *
 * @throws PdfError where a source cannot be read, or Ghostscript is missing
 */
export async function greyPages(files: readonly Uint8Array[], wanted: readonly PageOfDocument[]): Promise<Uint8Array> {
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
  return convertToGrey(savePdf(target));
}
