export const margin = {
  schema: {
    type: 'number',
    minimum: 0,
    maximum: 100,
    default: 0,
    description: 'How much of the paper’s edge stays free, in millimetres',
  },
  carriers: ['ticket', 'route'],
} as const;
