export const title = {
  schema: { type: 'string', maxLength: 255, default: '', description: 'What the job is called' },
  carriers: ['ticket'],
} as const;
