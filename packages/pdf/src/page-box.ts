import { PDFArray, PDFName, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import type { PageNode } from './page-tree';
import { numberOf } from './pdf-object';

/** The six numbers of a transformation, as the operator `cm` takes them (ISO 32000-1, 8.3.4). */
export type Matrix = readonly [number, number, number, number, number, number];

interface Rectangle {
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
  readonly top: number;
}

/**
 * The visible part of a page, and how it becomes the page as a reader shows it.
 *
 *      user space                         as read
 *     +-------------------+
 *     | media  +-------+  |              +-------+
 *     |        | crop  |  |   matrix     | crop  | height
 *     |        +-------+  |  ------->    +-------+
 *     +-------------------+              0  width     origin at its lower left corner
 */
export interface PageBox {
  /** The crop box cut to the media box, in user space: [left, bottom, right, top]. */
  readonly crop: readonly [number, number, number, number];
  /** From user space to the page as read: moved to the origin, turned by Rotate, times UserUnit. */
  readonly matrix: Matrix;
  /** Points, as read. */
  readonly width: number;
  readonly height: number;
}

/** US Letter, for a page that states no box at all although it must (ISO 32000-1, table 30); as viewers do. */
const NO_BOX: Rectangle = { left: 0, bottom: 0, right: 612, top: 792 };

/** The box of a page (model, Geometry, Page; ISO 32000-1, 14.11.2). */
export function pageBox(page: PageNode, context: PDFContext): PageBox {
  const media = rectangle(page.inherited.MediaBox, context) ?? NO_BOX;
  const crop = cut(rectangle(page.inherited.CropBox, context) ?? media, media);
  const unit = userUnitOf(page, context);
  const width = (crop.right - crop.left) * unit;
  const height = (crop.top - crop.bottom) * unit;
  const rotate = rotationOf(page, context);
  const toOrigin: Matrix = [unit, 0, 0, unit, -crop.left * unit, -crop.bottom * unit];
  const sideways = rotate % 180 !== 0;
  return {
    crop: [crop.left, crop.bottom, crop.right, crop.top],
    matrix: multiply(toOrigin, turning(rotate, width, height)),
    width: sideways ? height : width,
    height: sideways ? width : height,
  };
}

/** Turns a box of this width and height clockwise by quarters, so that it lies at the origin again. */
export function turning(degrees: number, width: number, height: number): Matrix {
  switch (((degrees % 360) + 360) % 360) {
    case 90:
      return [0, -1, 1, 0, 0, width];
    case 180:
      return [-1, 0, 0, -1, width, height];
    case 270:
      return [0, 1, -1, 0, height, 0];
    default:
      return [1, 0, 0, 1, 0, 0];
  }
}

/** First `a`, then `b` (ISO 32000-1, 8.3.4). */
export function multiply(a: Matrix, b: Matrix): Matrix {
  return [
    a[0] * b[0] + a[1] * b[2],
    a[0] * b[1] + a[1] * b[3],
    a[2] * b[0] + a[3] * b[2],
    a[2] * b[1] + a[3] * b[3],
    a[4] * b[0] + a[5] * b[2] + b[4],
    a[4] * b[1] + a[5] * b[3] + b[5],
  ];
}

/** A box may be given by any two opposite corners (ISO 32000-1, 7.9.5); null where it is missing or no rectangle. */
function rectangle(object: PDFObject | undefined, context: PDFContext): Rectangle | null {
  const array = context.lookup(object);
  if (!(array instanceof PDFArray) || array.size() < 4) return null;
  const [x1, y1, x2, y2] = [0, 1, 2, 3].map((index) => numberOf(array.get(index), context) ?? NaN) as [
    number,
    number,
    number,
    number,
  ];
  const box = { left: Math.min(x1, x2), bottom: Math.min(y1, y2), right: Math.max(x1, x2), top: Math.max(y1, y2) };
  return box.right - box.left > 0 && box.top - box.bottom > 0 ? box : null;
}

/** What lies outside the media box does not exist; a crop box wholly outside counts as none. */
function cut(crop: Rectangle, media: Rectangle): Rectangle {
  const box = {
    left: Math.max(crop.left, media.left),
    bottom: Math.max(crop.bottom, media.bottom),
    right: Math.min(crop.right, media.right),
    top: Math.min(crop.top, media.top),
  };
  return box.right > box.left && box.top > box.bottom ? box : media;
}

/** Degrees clockwise by which a page is turned to be read; other than quarters are rounded (ISO 32000-1, table 30). */
export function rotationOf(page: PageNode, context: PDFContext): 0 | 90 | 180 | 270 {
  const rotate = Math.round((numberOf(page.inherited.Rotate, context) ?? 0) / 90) * 90;
  return (((rotate % 360) + 360) % 360) as 0 | 90 | 180 | 270;
}

/** Points a unit of the page's user space stands for (ISO 32000-1, table 30). */
export function userUnitOf(page: PageNode, context: PDFContext): number {
  const unit = numberOf(page.dict.get(PDFName.of('UserUnit')), context) ?? 1;
  return unit > 0 ? unit : 1;
}
