export const pages = {
  schema: {
    type: 'string',
    maxLength: 10000,
    default: 'all',
    description: 'Which pages, in the selection language, and in which order',
  },
  carriers: ['document'],
} as const;
