export const delivery = {
  schema: {
    enum: ['first-to-last', 'last-to-first'],
    default: 'first-to-last',
    description: 'Which sheet is printed first',
  },
  carriers: ['ticket'],
} as const;
