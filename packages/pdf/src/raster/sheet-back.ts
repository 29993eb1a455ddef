/** How a printer wants the back of a two-sided sheet (PWG 5102.4, pwg-raster-document-sheet-back). */
export const SHEET_BACKS = ['normal', 'flipped', 'manual-tumble', 'rotated'] as const;
export type SheetBackWord = (typeof SHEET_BACKS)[number];

export interface SheetBack {
  /** @param tumble whether the sheet turns on its short edge */
  readonly turns: (tumble: boolean) => { readonly cross: 1 | -1; readonly feed: 1 | -1 };
}

/** The transformation of a back, across and along the way of the paper (PWG 5102.4, 5.2.3, table; from memory). */
export const SHEET_BACK: Readonly<Record<SheetBackWord, SheetBack>> = {
  normal: { turns: () => ({ cross: 1, feed: 1 }) },
  flipped: { turns: (tumble) => (tumble ? { cross: -1, feed: 1 } : { cross: 1, feed: -1 }) },
  'manual-tumble': { turns: (tumble) => (tumble ? { cross: -1, feed: -1 } : { cross: 1, feed: 1 }) },
  rotated: { turns: (tumble) => (tumble ? { cross: 1, feed: 1 } : { cross: -1, feed: -1 }) },
};
