export const numbering = {
  schema: {
    enum: ['position', 'labels'],
    default: 'position',
    description: 'Whether numbers in a selection mean places in the document or the labels printed on its pages',
  },
  carriers: ['document'],
} as const;
