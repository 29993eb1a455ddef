/** Millimetres on a page. */
const length = { type: 'number', maximum: 10_000 } as const;

export const part = {
  schema: {
    default: 'whole',
    description:
      'What of each page is printed: all of it, its content with the white margins trimmed, or a rectangle, in millimetres from the upper left corner of the page as read; that of a route in place of its document’s',
    anyOf: [
      { enum: ['whole', 'content'] },
      {
        type: 'object',
        additionalProperties: false,
        required: ['left', 'top', 'width', 'height'],
        properties: {
          left: { ...length, minimum: 0 },
          top: { ...length, minimum: 0 },
          width: { ...length, exclusiveMinimum: 0 },
          height: { ...length, exclusiveMinimum: 0 },
        },
      },
    ],
  },
  carriers: ['document', 'route'],
} as const;
