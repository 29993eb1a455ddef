export const rotate = {
  schema: {
    enum: [0, 90, 180, 270],
    default: 0,
    description:
      'Degrees clockwise by which pages are turned before all else; those of a route in place of its document’s',
  },
  carriers: ['document', 'route'],
} as const;
