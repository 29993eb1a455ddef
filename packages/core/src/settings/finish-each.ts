export const finishEach = {
  schema: {
    enum: ['set', 'document', 'section'],
    default: 'set',
    description: 'What is stapled or folded by itself; documents and sections then begin on a sheet of their own',
  },
  carriers: ['ticket'],
} as const;
