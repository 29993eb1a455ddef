import { PDFObjectCopier, type PDFContext } from '@cantoo/pdf-lib';
import { drawFormFields } from './form-fields';
import { openPdf, type OpenPdf } from './open';
import { layersOf, type Layers } from './optional-content';
import { makePageForm, type PageForm } from './page-form';
import { listPages, type PageNode } from './page-tree';
import { damaged } from './pdf-error';

/** A source opened once, its pages made into forms as they are first placed. */
export interface Source {
  readonly pdf: OpenPdf;
  readonly pages: readonly PageNode[];
  readonly forms: Map<number, PageForm>;
  /** Brings objects into the target, each once; null for the source whose context is the target. */
  readonly copier: PDFObjectCopier | null;
}

/**
 * Opens files to be placed in one target: the context of the first. The same bytes given twice (one file under two
 * documents) are opened once, so fonts and images stand once.
 *
 * @returns a source for each file, in their order
 * @throws PdfError where one cannot be read
 */
export async function openSources(files: readonly Uint8Array[]): Promise<Source[]> {
  const opened = new Map<Uint8Array, Source>();
  let target: PDFContext | null = null;
  for (const bytes of files) {
    if (opened.has(bytes)) continue;
    const pdf = await openPdf(bytes);
    await drawFormFields(pdf);
    const copier = target ? PDFObjectCopier.for(pdf.context, target) : null;
    target ??= pdf.context;
    opened.set(bytes, { pdf, pages: listPages(pdf), forms: new Map(), copier });
  }
  return files.map((bytes) => opened.get(bytes) as Source);
}

/** The layers of every source as the target knows them. */
export function layersOfAll(sources: readonly Source[]): Layers[] {
  return [...new Set(sources)].map(({ pdf, copier }) => {
    const { all, off } = layersOf(pdf);
    return copier ? { all: all.map((ref) => copier.copy(ref)), off: off.map((ref) => copier.copy(ref)) } : { all, off };
  });
}

/** A page of a source as a form in the target, made once. @param page counted from 1 @throws PdfError `damaged` */
export function formOf(source: Source, page: number, target: PDFContext): PageForm {
  let form = source.forms.get(page);
  if (!form) {
    const node = source.pages[page - 1];
    if (!node) throw damaged(`page ${page} is missing from the file`);
    form = makePageForm(node, source.pdf.context);
    if (source.copier) form = { ...form, ref: source.copier.copy(form.ref) };
    source.forms.set(page, form);
  }
  if (target.lookup(form.ref) === undefined) throw damaged(`page ${page} could not be copied`);
  return form;
}
