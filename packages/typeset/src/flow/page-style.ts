import { pointsToMm, type Form } from '@foglio/core';
import { A4, pageOf } from '../table/form-setup';

/** Millimetres from the paper's edge to the text. */
const MARGIN = 20;

/** CSS pixels of an inch (CSS Values and Units 3, 6.2). */
const PIXELS = 96 / 25.4;

/** Pages as CSS says them, and how wide their text is. */
export interface PageStyle {
  readonly css: string;
  /** CSS pixels. */
  readonly width: number;
}

/** @param isAsked whether it goes before what a document says itself */
export function pageStyle({ paper = A4, orientation = 'portrait' }: Form, isAsked = true): PageStyle {
  const page = pageOf(paper, orientation);
  const [width, height] = [page.width, page.height].map((points) => Math.round(pointsToMm(points) * 10) / 10) as [
    number,
    number,
  ];
  const size = `size:${width}mm ${height}mm${isAsked ? ' !important' : ''}`;
  return { css: `@page{${size};margin:${MARGIN}mm}`, width: Math.round((width - 2 * MARGIN) * PIXELS) };
}
