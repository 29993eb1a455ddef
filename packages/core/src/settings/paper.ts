import { readSizeName } from '../paper/sizes';
import type { Contradiction } from './setting';

export const paper = {
  schema: {
    type: 'object',
    additionalProperties: false,
    default: {},
    description: 'What paper, and which way the sides stand on it',
    properties: {
      size: {
        type: 'string',
        minLength: 1,
        maxLength: 255,
        default: 'as-page',
        description: 'A PWG 5101.1 name; as-page: the size nearest to each page’s own',
      },
      orientation: {
        enum: ['auto', 'portrait', 'landscape'],
        default: 'auto',
        description: 'Which way every side stands; auto: as its pages ask for',
      },
      type: {
        type: ['string', 'null'],
        maxLength: 255,
        default: null,
        description: 'A media type name of PWG 5101.1; null: whatever lies in the tray',
      },
    },
  },
  carriers: ['ticket', 'route'],
  /** With the tray: media-size and media-source (PWG 5100.3, section 3.13). */
  told: { attribute: 'media-col', of: 'sheet', syntax: 'collection' },
  contradiction: contradictionOf,
} as const;

/** A size has to be readable. */
function contradictionOf({ size }: { readonly size?: string }): Contradiction | null {
  if (size === undefined || size === 'as-page' || (readSizeName(size)?.width ?? 0) > 0) return null;
  const repair = 'write "as-page" or one like "iso_a4_210x297mm"';
  return { part: '.size', problem: `"${size}" is not a PWG 5101.1 size name`, repair };
}
