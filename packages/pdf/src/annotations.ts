import { PDFArray, PDFDict, PDFName, PDFRef, PDFStream, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { nameIn } from './objects/lazy-context';
import type { Matrix } from './page-box';
import type { PageNode } from './page-tree';
import { nameOf, numberOf } from './pdf-object';

/** What an annotation prints: its appearance, drawn on the page in the page's own user space. */
export interface PrintedAnnotation {
  readonly appearance: PDFRef;
  /** From the appearance's form space to the page's user space; the form's own Matrix comes before it. */
  readonly matrix: Matrix;
  /** The layer that decides whether it is seen, or null. */
  readonly layer: PDFObject | null;
  /** Where it stands, in user space: left, bottom, right, top. */
  readonly place: readonly [number, number, number, number];
  readonly isField: boolean;
}

/** Flags of an annotation (ISO 32000-1, table 165). */
const HIDDEN = 1 << 1;
const PRINT = 1 << 2;

/** A push button has nothing to say on paper (ISO 32000-1, table 226, field flags of buttons). */
const PUSH_BUTTON = 1 << 16;

/** Kinds that never print by themselves: a pop-up belongs to another annotation, a link only leads somewhere. */
const SCREEN_ONLY = ['Link', 'Popup'];

interface Rectangle {
  readonly left: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The annotations and form fields of a page that are printed, in their order: those with the Print flag that are not
 * hidden, links, pop-ups and push buttons left out (ISO 32000-1, 12.5.3). NoView hides on the screen alone. One without an
 * appearance stream prints nothing.
 */
export function printedAnnotations(page: PageNode, context: PDFContext): PrintedAnnotation[] {
  const annotations = context.lookup(page.dict.get(PDFName.of('Annots')));
  if (!(annotations instanceof PDFArray)) return [];
  return annotations.asArray().flatMap((entry) => {
    if (isScreenOnly(entry, context)) return [];
    const annotation = context.lookup(entry);
    if (!(annotation instanceof PDFDict) || !isPrinted(annotation, context)) return [];
    const appearance = normalAppearance(annotation, context);
    const place = rectangleOf(annotation.get(PDFName.of('Rect')), context);
    if (!appearance || !place) return [];
    const stream = context.lookup(appearance) as PDFStream;
    const matrix = appearanceMatrix(stream, place, context);
    if (!matrix) return [];
    const layer = annotation.get(PDFName.of('OC')) ?? null;
    const { left, bottom, width, height } = place;
    const isField = nameOf(annotation.get(PDFName.of('Subtype')), context) === 'Widget';
    return [{ appearance, matrix, layer, place: [left, bottom, left + width, bottom + height], isField }];
  });
}

/** How many marks on a page would be printed but have no appearance to print; form fields, which can be drawn, left out. */
export function countWithoutAppearance(page: PageNode, context: PDFContext): number {
  const annotations = context.lookup(page.dict.get(PDFName.of('Annots')));
  if (!(annotations instanceof PDFArray)) return 0;
  return annotations.asArray().filter((entry) => {
    if (isScreenOnly(entry, context)) return false;
    const annotation = context.lookup(entry);
    if (!(annotation instanceof PDFDict) || !isPrinted(annotation, context)) return false;
    const isField = nameOf(annotation.get(PDFName.of('Subtype')), context) === 'Widget';
    return !isField && !(context.lookup(annotation.get(PDFName.of('AP'))) instanceof PDFDict);
  }).length;
}

/** Manuals have ten thousands of links, so no objects are made of them. */
function isScreenOnly(entry: PDFObject, context: PDFContext): boolean {
  const kind = entry instanceof PDFRef ? nameIn(context, entry, 'Subtype') : null;
  return kind !== null && SCREEN_ONLY.includes(kind);
}

function isPrinted(annotation: PDFDict, context: PDFContext): boolean {
  const flags = numberOf(annotation.get(PDFName.of('F')), context) ?? 0;
  if ((flags & HIDDEN) !== 0 || (flags & PRINT) === 0) return false;
  const kind = nameOf(annotation.get(PDFName.of('Subtype')), context);
  if (kind === null || SCREEN_ONLY.includes(kind)) return false;
  return !(kind === 'Widget' && isPushButton(annotation, context));
}

function isPushButton(field: PDFDict, context: PDFContext): boolean {
  const kind = nameOf(inheritedEntry(field, 'FT', context), context);
  return kind === 'Btn' && ((numberOf(inheritedEntry(field, 'Ff', context), context) ?? 0) & PUSH_BUTTON) !== 0;
}

/** Entry of a form field or of the fields above it (ISO 32000-1, 12.7.3.1); a cycle of parents ends the search. */
function inheritedEntry(field: PDFDict, name: string, context: PDFContext): PDFObject | undefined {
  const seen = new Set<PDFObject>();
  for (let at: PDFObject | undefined = field; at instanceof PDFDict && !seen.has(at);) {
    seen.add(at);
    const found = at.get(PDFName.of(name));
    if (found) return found;
    at = context.lookup(at.get(PDFName.of('Parent')));
  }
  return undefined;
}

/** The stream the annotation looks like; of several states the one it is in (ISO 32000-1, 12.5.5). */
function normalAppearance(annotation: PDFDict, context: PDFContext): PDFRef | null {
  const appearances = context.lookup(annotation.get(PDFName.of('AP')));
  if (!(appearances instanceof PDFDict)) return null;
  const normal = appearances.get(PDFName.of('N'));
  const found = context.lookup(normal);
  if (!(found instanceof PDFDict)) return asStreamRef(normal, context);
  const state =
    nameOf(annotation.get(PDFName.of('AS')), context) ??
    nameOf(inheritedEntry(annotation, 'V', context), context) ??
    'Off';
  return asStreamRef(found.get(PDFName.of(state)), context);
}

/** Streams are always indirect objects (ISO 32000-1, 7.3.8); anything else is no appearance. */
const asStreamRef = (object: PDFObject | undefined, context: PDFContext): PDFRef | null =>
  object instanceof PDFRef && context.lookup(object) instanceof PDFStream ? object : null;

/**
 * The matrix A of ISO 32000-1, 12.5.5, algorithm 8.1: the bounding box of the appearance's box under its own Matrix is
 * scaled and moved onto the annotation's rectangle. Null where the appearance has no extent, so that nothing is seen.
 */
function appearanceMatrix(stream: PDFStream, place: Rectangle, context: PDFContext): Matrix | null {
  const box = rectangleOf(stream.dict.get(PDFName.of('BBox')), context);
  if (!box) return null;
  const own = numbersOf(stream.dict.get(PDFName.of('Matrix')), 6, context) ?? [1, 0, 0, 1, 0, 0];
  const [a, b, c, d, e, f] = own as unknown as Matrix;
  const corners = [
    [box.left, box.bottom],
    [box.left + box.width, box.bottom],
    [box.left, box.bottom + box.height],
    [box.left + box.width, box.bottom + box.height],
  ] as const;
  const xs = corners.map(([x, y]) => a * x + c * y + e);
  const ys = corners.map(([x, y]) => b * x + d * y + f);
  const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (right - left <= 0 || top - bottom <= 0) return null;
  const [alongX, alongY] = [place.width / (right - left), place.height / (top - bottom)];
  return [alongX, 0, 0, alongY, place.left - left * alongX, place.bottom - bottom * alongY];
}

function rectangleOf(object: PDFObject | undefined, context: PDFContext): Rectangle | null {
  const numbers = numbersOf(object, 4, context);
  if (!numbers) return null;
  const [x1, y1, x2, y2] = numbers as [number, number, number, number];
  return { left: Math.min(x1, x2), bottom: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) };
}

function numbersOf(object: PDFObject | undefined, count: number, context: PDFContext): number[] | null {
  const array = context.lookup(object);
  if (!(array instanceof PDFArray) || array.size() < count) return null;
  const numbers = array
    .asArray()
    .slice(0, count)
    .map((entry) => numberOf(entry, context));
  return numbers.every((number) => number !== null) ? numbers : null;
}
