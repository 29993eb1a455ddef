export const ownSheet = {
  schema: { type: 'boolean', default: false, description: 'Each of these pages on a sheet of its own' },
  carriers: ['route'],
} as const;
