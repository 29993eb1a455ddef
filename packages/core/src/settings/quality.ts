export const quality = {
  schema: { enum: ['draft', 'normal', 'high'], default: 'normal', description: 'How finely it is printed' },
  carriers: ['ticket'],
  /** RFC 8011, section 5.2.13. */
  told: { attribute: 'print-quality', of: 'job', syntax: 'enum', values: { draft: 3, normal: 4, high: 5 } },
} as const;
