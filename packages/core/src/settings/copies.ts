export const copies = {
  schema: { type: 'integer', minimum: 1, maximum: 100000, default: 1, description: 'How many sets' },
  carriers: ['ticket'],
  told: { attribute: 'copies', of: 'job', syntax: 'integer' },
} as const;
