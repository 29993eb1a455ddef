export const proof = {
  schema: {
    type: 'boolean',
    default: false,
    description: 'One set first; the others are held until a person releases them',
  },
  carriers: ['ticket'],
} as const;
