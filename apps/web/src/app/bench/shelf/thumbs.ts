import { orientationOf, type PageFacts, type Plan, type Tray } from '@foglio/core';

export interface Thumb {
  readonly page: number;
  readonly width: number;
  readonly height: number;
  readonly printed: boolean;
  readonly chosen: boolean;
  /** Place of the page's tray in the printer's order; -1 where the plan does not print the page. */
  readonly tray: number;
  /** Its number, and the label printed on it where that is another. */
  readonly name: string;
  readonly label: string;
}

/** What of a document is printed, chosen, and from which tray. */
export interface Thumbed {
  readonly printed: ReadonlySet<number>;
  readonly chosen: ReadonlySet<number>;
  /** From page 1 on. */
  readonly trayOfPage: readonly (string | null)[];
  readonly trays: readonly Tray[];
  /** Degrees by which the document is turned. */
  readonly rotate: number;
}

/** The longest edge of a thumbnail, in CSS pixels. */
const THUMB = 82;

/** The tray of each page of a document, counted from 1; taken from the plan, which alone decides it. */
export function traysOfPages(plan: Plan | null, of: number): (string | null)[] {
  const trays: (string | null)[] = [];
  for (const { tray, front, back } of plan?.sheets ?? []) {
    for (const cells of [front.cells, back?.cells ?? []]) {
      for (const { document, page } of cells) if (document === of) trays[page] = tray;
    }
  }
  return trays;
}

/** A page, counted from 1, as it is shown small. */
export function thumbOf(page: number, size: PageFacts, thumbed: Thumbed): Thumb {
  const { trays, trayOfPage } = thumbed;
  const [width, height] = thumbed.rotate % 180 === 0 ? [size.width, size.height] : [size.height, size.width];
  const k = THUMB / Math.max(width, height);
  const printed = thumbed.printed.has(page);
  const id = trayOfPage[page];
  const tray = printed ? trays.findIndex((one) => one.id === id) : -1;
  const where = printed ? (trays[tray]?.name ?? id ?? 'no tray') : 'not printed';
  const turned = orientationOf(width, height) === 'landscape' ? ', landscape' : '';
  return {
    page,
    width: width * k,
    height: height * k,
    printed,
    chosen: thumbed.chosen.has(page),
    tray,
    name: size.label === undefined || size.label === String(page) ? String(page) : `${page} · ${size.label}`,
    label: `Page ${page}${turned}, ${where}`,
  };
}
