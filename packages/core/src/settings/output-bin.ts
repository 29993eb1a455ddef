/** Leaves the output to the printer. */
const AUTO = 'auto';

const named = (values: readonly string[]): string[] => [...new Set(values)].filter((bin) => bin !== AUTO);

export const outputBin = {
  schema: {
    type: 'string',
    minLength: 1,
    maxLength: 255,
    pattern: '^[a-z0-9][a-z0-9._-]*$',
    default: AUTO,
    description: 'Which output the sheets go to: a keyword of PWG 5100.2, as the printer has them; auto: its usual one',
  },
  carriers: ['ticket', 'route'],
  /** PWG 5100.2, section 2.1. */
  told: { attribute: 'output-bin', of: 'sheet', syntax: 'keyword', said: 'the output' },
  known: {
    field: 'outputBins',
    schema: { type: 'array', maxItems: 100, items: { type: 'string' }, default: [] },
    asked: 'output-bin-supported',
    syntax: 'keyword',
    read: named,
    needed: named,
    answer: (bins: readonly string[]): readonly string[] => bins,
  },
} as const;
