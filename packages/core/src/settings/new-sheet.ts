export const newSheet = {
  schema: {
    type: 'object',
    additionalProperties: false,
    default: {},
    description: 'What begins on a sheet of its own',
    properties: {
      documents: { type: 'boolean', default: true, description: 'Every document' },
      sections: { type: 'boolean', default: false, description: 'Every section of the outline' },
    },
  },
  carriers: ['ticket'],
} as const;
