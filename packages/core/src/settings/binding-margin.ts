export const bindingMargin = {
  schema: {
    type: 'number',
    minimum: 0,
    maximum: 100,
    default: 0,
    description:
      'How much of the bound edge stays free beside the margin, in millimetres: on fronts along `bind`, on backs along the opposite edge',
  },
  carriers: ['ticket'],
} as const;
