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
 */
export interface PageFacts {
  readonly width: number;
  readonly height: number;
}

export interface DocumentFacts {
  /** The name a person knows the document by; used in messages. */
  readonly name: string;
  readonly pages: readonly PageFacts[];
}
