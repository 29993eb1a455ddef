export const collate = {
  schema: {
    type: 'boolean',
    default: true,
    description: 'Complete sets; otherwise every sheet as often as wanted before the next',
  },
  carriers: ['ticket'],
  /** RFC 8011 has it as an extension; PWG 5100.3, section 3.1.14. */
  told: {
    attribute: 'sheet-collate',
    of: 'job',
    syntax: 'keyword',
    values: { true: 'collated', false: 'uncollated' },
  },
} as const;
