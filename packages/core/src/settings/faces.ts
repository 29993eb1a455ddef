export const faces = {
  schema: {
    enum: ['both', 'fronts', 'backs'],
    default: 'both',
    description:
      'Fronts or backs alone: one of the two passes that print both sides by hand, in the order that the printer needs',
  },
  carriers: ['ticket'],
} as const;
