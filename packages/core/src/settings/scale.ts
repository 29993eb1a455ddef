export const scale = {
  schema: {
    type: 'object',
    additionalProperties: false,
    default: {},
    description: 'How large pages are printed',
    properties: {
      mode: {
        enum: ['auto-fit', 'fit', 'fill', 'none', 'fit-width', 'percent'],
        default: 'auto-fit',
        description: 'The keywords of PWG 5100.16, print-scaling, and two more',
      },
      percent: {
        type: 'number',
        exclusiveMinimum: 0,
        maximum: 1000,
        default: 100,
        description: 'With the mode percent alone: of the page’s own size',
      },
    },
  },
  carriers: ['ticket', 'route'],
  /** Always "none" (PWG 5100.16): the file is imposed at the paper's size, and the printer must not shrink it again. */
  told: { attribute: 'print-scaling', of: 'job', syntax: 'keyword' },
} as const;
