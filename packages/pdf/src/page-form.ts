import { PDFBool, PDFName, PDFRawStream, type PDFRef, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { printedAnnotations, type PrintedAnnotation } from './annotations';
import { decimal } from './number';
import { packedStream, type Entries } from './objects/flate';
import { pageBox, type Matrix, type PageBox } from './page-box';
import { contentBytes, pageContent } from './page-content';
import type { PageNode } from './page-tree';
import { dictOf } from './pdf-object';

/** A source page made into a form XObject, which draws the page as read with its lower left corner at the origin. */
export interface PageForm {
  readonly ref: PDFRef;
  readonly box: PageBox;
}

/**
 * Registers a page as a form XObject in its own document (ISO 32000-1, 8.10). Content bytes are taken over as they
 * are, compressed; only a page with several content streams has them joined. A page with annotations that print gets a
 * form round its content, which draws them on it.
 */
export function makePageForm(page: PageNode, context: PDFContext): PageForm {
  const box = pageBox(page, context);
  const annotations = printedAnnotations(page, context);
  if (annotations.length === 0) return { ref: contentForm(page, context, box, box.matrix), box };
  // The outer form is no transparency group: a highlight must multiply with what lies under it.
  const content = contentForm(page, context, box, NO_CHANGE);
  return { ref: annotatedForm(content, annotations, context, box), box };
}

const NO_CHANGE: Matrix = [1, 0, 0, 1, 0, 0];

function contentForm(page: PageNode, context: PDFContext, box: PageBox, matrix: Matrix): PDFRef {
  const entries = {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [...box.crop],
    Matrix: [...matrix],
    Resources: page.inherited.Resources ?? {},
  };
  const stream = contentStream(page, entries, context);
  if (knocksOut(page, context))
    stream.dict.set(PDFName.of('Group'), context.obj({ S: 'Transparency', I: true, K: true }));
  return context.register(stream);
}

/**
 * A page is a group by itself, whatever it says (ISO 32000-1, 11.4.7), and so is the side it is placed on; what it says of the colours
 * that it is blended in would make printers draw blacks and greys in all inks. Only where each of its objects hides those before it
 * must it be a group there too.
 */
function knocksOut(page: PageNode, context: PDFContext): boolean {
  const group = dictOf(page.dict.get(PDFName.of('Group')), context);
  return group !== null && context.lookup(group.get(PDFName.of('K'))) === PDFBool.True;
}

/** Draws a page's content, then each annotation on it, hidden with its layer where it has one. */
function annotatedForm(
  page: PDFRef,
  annotations: readonly PrintedAnnotation[],
  context: PDFContext,
  box: PageBox,
): PDFRef {
  const forms: Record<string, PDFRef> = { P: page };
  const layers: Record<string, PDFObject> = {};
  const operators = annotations.map(({ appearance, matrix, layer }, index) => {
    forms[`A${index}`] = appearance;
    const drawn = `q ${matrix.map(decimal).join(' ')} cm /A${index} Do Q`;
    if (!layer) return drawn;
    layers[`L${index}`] = layer;
    return `/OC /L${index} BDC ${drawn} EMC`;
  });
  const content = new TextEncoder().encode(['/P Do', ...operators].join('\n'));
  const entries = {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [...box.crop],
    Matrix: [...box.matrix],
    Resources: { XObject: forms, Properties: layers },
  };
  return context.register(packedStream(content, entries, context));
}

const FILTER_ENTRIES = ['Filter', 'DecodeParms'].map((name) => PDFName.of(name));

function contentStream(page: PageNode, entries: Entries, context: PDFContext): PDFRawStream {
  const { streams } = pageContent(page, context);
  const [only] = streams;
  if (!only || streams.length > 1) return packedStream(contentBytes(page, context), entries, context);
  const dict = context.obj(entries as Record<string, never>);
  for (const name of FILTER_ENTRIES) {
    const value = only.dict.get(name);
    if (value) dict.set(name, value);
  }
  return PDFRawStream.of(dict, only.contents);
}
