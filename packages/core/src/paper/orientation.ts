export type Orientation = 'portrait' | 'landscape';

/** The way a box is turned; a square counts as portrait (model, Geometry). */
export function orientationOf(width: number, height: number): Orientation {
  return width > height ? 'landscape' : 'portrait';
}
