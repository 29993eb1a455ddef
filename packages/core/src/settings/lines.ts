import type { Contradiction } from './setting';

/** What stands in braces in a line, and is filled in for each page. */
export const LINE_FIELDS = ['page', 'pages', 'file page', 'file pages', 'section', 'file', 'title', 'date'] as const;

export const LINE_SIZE = { type: 'number', minimum: 4, maximum: 72, default: 8, description: 'In points' } as const;

export const lines = {
  schema: {
    type: 'array',
    maxItems: 12,
    default: [],
    description: 'Lines of text at the head and foot of every page; what stands in braces is filled in',
    items: {
      type: 'object',
      additionalProperties: false,
      required: ['at', 'text'],
      properties: {
        at: {
          enum: ['top-left', 'top-center', 'top-right', 'bottom-left', 'bottom-center', 'bottom-right'],
          description: 'Where on the page',
        },
        text: { type: 'string', minLength: 1, maxLength: 200, description: 'What it says' },
        size: LINE_SIZE,
      },
    },
  },
  carriers: ['ticket'],
  contradiction: contradictionOf,
} as const;

/** Only what is known can be filled in. */
function contradictionOf(all: readonly { readonly text: string }[]): Contradiction | null {
  for (const [index, { text }] of all.entries()) {
    for (const { 0: braced, 1: name, index: position } of text.matchAll(/\{([^{}]*)\}/g)) {
      if ((LINE_FIELDS as readonly string[]).includes(name ?? '')) continue;
      const repair = `write ${LINE_FIELDS.map((field) => `{${field}}`).join(', ')}`;
      const problem = `${braced} is nothing that can be filled in`;
      return { part: `[${index}].text`, problem, repair, position, length: braced.length };
    }
  }
  return null;
}
