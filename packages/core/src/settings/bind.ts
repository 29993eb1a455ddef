export const bind = {
  schema: {
    enum: ['left', 'right', 'top'],
    default: 'left',
    description: 'Where a person holds the set: turned like a book, like one read from the right, like a pad',
  },
  carriers: ['ticket'],
} as const;
