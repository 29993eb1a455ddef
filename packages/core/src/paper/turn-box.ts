import type { Box, Extent } from './box';

/** A box on a page after the page is turned clockwise and put with its lower left corner at the origin again. */
export function turnBox({ x, y, width, height }: Box, page: Extent, degrees: number): Box {
  switch (degrees % 360) {
    case 90:
      return { x: y, y: page.width - x - width, width: height, height: width };
    case 180:
      return { x: page.width - x - width, y: page.height - y - height, width, height };
    case 270:
      return { x: page.height - y - height, y: x, width: height, height: width };
    default:
      return { x, y, width, height };
  }
}

/** What two boxes have in common; of those that do not meet, a box whose width or height is not above 0. */
export function overlap(one: Box, other: Box): Box {
  const x = Math.max(one.x, other.x);
  const y = Math.max(one.y, other.y);
  return {
    x,
    y,
    width: Math.min(one.x + one.width, other.x + other.width) - x,
    height: Math.min(one.y + one.height, other.y + other.height) - y,
  };
}
