/** At most so many pages are laid in a set (model, Pages and pieces). */
export const MOST_LAID = 100_000;

export const pieces = {
  schema: {
    type: ['object', 'null'],
    additionalProperties: false,
    required: ['count'],
    default: null,
    description:
      'How many pieces a set has, of grids alone: the pages are laid again and again until so many lie there; null: each page once',
    properties: {
      count: { type: 'integer', minimum: 1, maximum: MOST_LAID, description: 'How many' },
      fill: { type: 'boolean', default: false, description: 'Whether more are added until the last sheet is full' },
    },
  },
  carriers: ['ticket'],
} as const;
