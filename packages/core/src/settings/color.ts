export const color = {
  schema: {
    enum: ['auto', 'monochrome'],
    default: 'auto',
    description: 'Colour where a page holds any, or all in grey',
  },
  carriers: ['ticket', 'route'],
  /** PWG 5100.13, section 6.2.3. One for the whole job: where only some pages are wanted in grey, imposing turns them. */
  told: { attribute: 'print-color-mode', of: 'job', syntax: 'keyword' },
  known: {
    field: 'color',
    schema: { type: 'boolean', default: true },
    asked: 'color-supported',
    syntax: 'boolean',
    read: (values: readonly string[]): boolean => values[0] === 'true',
    answer: (color: boolean): readonly string[] => [String(color)],
  },
} as const;
