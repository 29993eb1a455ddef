export const inTurn = {
  schema: {
    type: 'boolean',
    default: false,
    description:
      'Whether the documents take turns, a page of each; new sheets and slips at documents and sections then say nothing',
  },
  carriers: ['ticket'],
} as const;
