const along = { type: ['integer', 'null'], minimum: 1, maximum: 8 } as const;

/** Several pages on a side, in cells. */
export const grid = {
  pagesPerSide: { enum: [1, 2, 4, 6, 8, 9, 16], default: 1, description: 'How many pages on a side' },
  columns: { ...along, default: null, description: 'Columns of its own, with rows; null: as pagesPerSide asks' },
  rows: { ...along, default: null, description: 'Rows of its own, with columns' },
  /** PWG 5100.3, presentation-direction-number-up. */
  flow: {
    enum: [
      'toright-tobottom',
      'toright-totop',
      'toleft-tobottom',
      'toleft-totop',
      'tobottom-toright',
      'tobottom-toleft',
      'totop-toright',
      'totop-toleft',
    ],
    default: 'toright-tobottom',
    description: 'Which way the pages run over the cells',
  },
  repeat: { enum: ['none', 'fill-side'], default: 'none', description: 'Whether one page fills each side' },
  turn: { enum: ['upright', 'best'], default: 'upright', description: 'Whether a page is turned where that is larger' },
  gutter: {
    type: 'number',
    minimum: 0,
    maximum: 100,
    default: 0,
    description: 'Room between cells, in millimetres',
  },
  frame: { type: 'boolean', default: false, description: 'A thin line round each page' },
  marks: { enum: ['none', 'cut'], default: 'none', description: 'Marks to cut by' },
  backs: {
    enum: ['next', 'behind'],
    default: 'next',
    description: 'Behind: pages are pairs, fronts and backs of pieces, and each back lies behind its own front',
  },
  stack: {
    enum: ['sheets', 'cut'],
    default: 'sheets',
    description:
      'Cut: the piles are in order once the sheets are cut and the piles laid on each other, the first on top',
  },
} as const;
