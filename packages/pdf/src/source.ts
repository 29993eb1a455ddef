import { drawFormFields } from './form-fields';
import { openPdf, type OpenPdf } from './open';
import { layersOf, type Layers } from './optional-content';
import { makePageForm, type PageForm } from './page-form';
import { listPages, type PageNode } from './page-tree';
import { damaged } from './pdf-error';
import { take, type Target } from './target';

/** A source opened once, its pages made into forms as they are first placed. */
export interface Source {
  readonly pdf: OpenPdf;
  readonly pages: readonly PageNode[];
  /** Of the pages that were placed. */
  readonly forms: Map<number, PageForm>;
}

/**
 * Opens files whose pages are to be placed. The same bytes given twice (one file under two documents) are opened once, so
 * fonts and images stand once.
 *
 * @returns a source for each file, in their order
 * @throws PdfError where one cannot be read
 */
export async function openSources(files: readonly Uint8Array[]): Promise<Source[]> {
  const opened = new Map<Uint8Array, Source>();
  for (const bytes of files) {
    if (opened.has(bytes)) continue;
    const pdf = await openPdf(bytes);
    await drawFormFields(pdf);
    opened.set(bytes, { pdf, pages: listPages(pdf), forms: new Map() });
  }
  return files.map((bytes) => opened.get(bytes) as Source);
}

/** The layers of every source as the target knows them. */
export function layersOfAll(sources: readonly Source[], target: Target): Layers[] {
  return [...new Set(sources)].map(({ pdf }) => {
    const { all, off } = layersOf(pdf);
    return { all: all.map((ref) => take(target, pdf, ref)), off: off.map((ref) => take(target, pdf, ref)) };
  });
}

/** A page of a source as a form in the target, made once. @param page counted from 1 @throws PdfError `damaged` */
export function formOf({ pdf, pages, forms }: Source, page: number, target: Target): PageForm {
  let form = forms.get(page);
  if (!form) {
    const node = pages[page - 1];
    if (!node) throw damaged(`page ${page} is missing from the file`);
    form = makePageForm(node, pdf.context);
    forms.set(page, form);
  }
  return { ...form, ref: take(target, pdf, form.ref) };
}
