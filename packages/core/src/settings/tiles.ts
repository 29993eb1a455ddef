const along = { type: ['integer', 'null'], minimum: 1, maximum: 20 } as const;

/** One page over several sheets, to be joined. */
export const tiles = {
  columns: { ...along, default: null, description: 'Sheets across, with rows; null: as many as the scale needs' },
  rows: { ...along, default: null, description: 'Sheets down, with columns' },
  overlap: {
    type: 'number',
    minimum: 0,
    maximum: 100,
    default: 10,
    description: 'How much of a sheet its neighbour has too, in millimetres',
  },
  marks: { enum: ['none', 'join'], default: 'none', description: 'Marks to join by' },
} as const;
