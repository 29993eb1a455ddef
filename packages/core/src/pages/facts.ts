import type { LaidOut } from './laid-out';

/**
 * What is known of a document before planning. Sizes are those of a page as a reader shows it, before the ticket's own
 * `rotate`: the crop box cut to the media box, times UserUnit, turned by the page's Rotate entry, in points.
 *
 *        width
 *     +---------+
 *     |         |
 *     |  page   | height      origin lower left, y grows upward (ISO 32000-1, 8.3.2.3)
 *     |         |
 *     +---------+
 *
 * Only the sizes must be there. Whatever else is left out is not known yet: a check that would need it stays silent, and
 * a selection that would need it says so.
 */
export interface PageFacts {
  readonly width: number;
  readonly height: number;
  /** The page's own Rotate entry, in degrees clockwise; the sizes are those after it. Left out where it is 0. */
  readonly rotate?: 90 | 180 | 270;
  /** The label printed on the page (ISO 32000-1, 12.4.2, page labels). */
  readonly label?: string;
  /** Whether anything on the page is coded in colour, and so billed as colour. */
  readonly color?: boolean;
  /** Whether the page is coded in colour although every colour on it is a grey. */
  readonly looksGray?: boolean;
  /**
   * Whether black on the page is set in red, green and blue. It counts as black, unless the printer says that it counts it as
   * colour (`blackOfColors`).
   */
  readonly blackOfColors?: boolean;
  /** Whether nothing is visible on the page. */
  readonly blank?: boolean;
  /** Height of the smallest text as it stands on the page, in points; null where the page holds no text. */
  readonly smallestText?: number | null;
  /** What is visible, as a box on the page as read: [x, y, width, height] in points; null on a blank page. */
  readonly content?: readonly [number, number, number, number] | null;
}

/** An entry of the document's outline, in the outline's order. */
export interface Heading {
  readonly title: string;
  /** 1 is the top level: a section begins there. */
  readonly level: number;
  /** Counted from 1. */
  readonly page: number;
  /** How far below the page's upper edge the heading stands, as a part of the page's height: 0 at the edge. */
  readonly top: number;
}

/** What a file says of itself (ISO 32000-1, 14.3.3); dates as ISO 8601. What it does not say is left out. */
export interface AboutDocument {
  readonly title?: string;
  readonly author?: string;
  readonly created?: string;
  readonly modified?: string;
}

export interface DocumentFacts {
  /** The name a person knows the document by; used in messages. */
  readonly name: string;
  readonly pages: readonly PageFacts[];
  readonly outline?: readonly Heading[];
  readonly about?: AboutDocument;
  /** How it came to its pages, where it has none of its own. */
  readonly laid?: LaidOut;
  /** What a person should know of the file, in sentences. */
  readonly remarks?: readonly string[];
}

/** What is said of a file that did not open as it came: pages may be missing. */
export const REPAIRED = 'The file was damaged; what could be saved of it is here. Look at each of its pages.';
