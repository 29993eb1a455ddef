import {
  decodePDFRawStream,
  type PDFDict,
  PDFName,
  PDFRawStream,
  type PDFRef,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { printedAnnotations, type PrintedAnnotation } from './annotations';
import { decimal } from './number';
import { pageBox, type Matrix, type PageBox } from './page-box';
import { pageContent } from './page-content';
import type { PageNode } from './page-tree';

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
  const { filters, bytes } = joinedContent(page, context);
  const dict = context.obj({
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [...box.crop],
    Matrix: [...matrix],
    Resources: page.inherited.Resources ?? {},
  });
  const group = page.dict.get(PDFName.of('Group'));
  if (group) dict.set(PDFName.of('Group'), group);
  for (const [name, value] of filters) dict.set(name, value);
  return context.register(PDFRawStream.of(dict, bytes));
}

/** Draws a page's content, then each annotation on it, hidden with its layer where it has one. */
function annotatedForm(
  content: PDFRef,
  annotations: readonly PrintedAnnotation[],
  context: PDFContext,
  box: PageBox,
): PDFRef {
  const forms: Record<string, PDFRef> = { P: content };
  const layers: Record<string, PDFObject> = {};
  const operators = annotations.map(({ appearance, matrix, layer }, index) => {
    forms[`A${index}`] = appearance;
    const drawn = `q ${matrix.map(decimal).join(' ')} cm /A${index} Do Q`;
    if (!layer) return drawn;
    layers[`L${index}`] = layer;
    return `/OC /L${index} BDC ${drawn} EMC`;
  });
  const stream = context.flateStream(['/P Do', ...operators].join('\n'), {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [...box.crop],
    Matrix: [...box.matrix],
    Resources: { XObject: forms, Properties: layers },
  });
  return context.register(stream);
}

interface Content {
  readonly filters: readonly (readonly [PDFName, PDFObject])[];
  readonly bytes: Uint8Array;
}

const FILTER_ENTRIES = ['Filter', 'DecodeParms'].map((name) => PDFName.of(name));

function joinedContent(page: PageNode, context: PDFContext): Content {
  const { streams } = pageContent(page, context);
  const [only] = streams;
  if (!only) return { filters: [], bytes: new Uint8Array() };
  if (streams.length === 1) return { filters: filtersOf(only.dict), bytes: only.contents };
  return { filters: [], bytes: joinWithNewlines(streams.map((stream) => decodePDFRawStream(stream).decode())) };
}

function filtersOf(dict: PDFDict): Content['filters'] {
  return FILTER_ENTRIES.flatMap((name) => {
    const value = dict.get(name);
    return value ? [[name, value] as const] : [];
  });
}

/** Operators of two streams must not run into each other (ISO 32000-1, 7.8.2). */
function joinWithNewlines(parts: readonly Uint8Array[]): Uint8Array {
  const joined = new Uint8Array(parts.reduce((sum, part) => sum + part.length + 1, 0));
  let at = 0;
  for (const part of parts) {
    joined.set(part, at);
    at += part.length;
    joined[at] = 0x0a;
    at += 1;
  }
  return joined;
}
