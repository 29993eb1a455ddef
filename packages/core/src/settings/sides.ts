export const sides = {
  schema: {
    enum: ['one-sided', 'two-sided'],
    default: 'one-sided',
    description: 'On one side of a sheet or on both; a booklet is always two-sided',
  },
  carriers: ['ticket', 'route'],
  /** The plan tells on which edge a sheet turns (RFC 8011, section 5.2.8). */
  told: { attribute: 'sides', of: 'sheet', syntax: 'keyword' },
  known: {
    field: 'duplex',
    schema: { type: 'boolean', default: true },
    asked: 'sides-supported',
    syntax: 'keyword',
    read: (values: readonly string[]): boolean => values.some((side) => side.startsWith('two-sided')),
    answer: (duplex: boolean): readonly string[] =>
      duplex ? ['one-sided', 'two-sided-long-edge', 'two-sided-short-edge'] : ['one-sided'],
  },
} as const;
