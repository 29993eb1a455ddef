import { formSchema } from './form.schema';
import { FORM_KINDS } from './laid-out';

/** JSON Schemas of the facts in `facts.ts`, for those who send them about; a test holds the two together. */

/** A number of points. */
const points = { type: 'number', minimum: 0 } as const;

export const pageFactsSchema = {
  title: 'Page facts',
  type: 'object',
  additionalProperties: false,
  required: ['width', 'height'],
  properties: {
    width: points,
    height: points,
    rotate: { enum: [90, 180, 270] },
    label: { type: 'string' },
    color: { type: 'boolean' },
    looksGray: { type: 'boolean' },
    blackOfColors: { type: 'boolean' },
    blank: { type: 'boolean' },
    smallestText: { type: ['number', 'null'], minimum: 0 },
    content: { type: ['array', 'null'], items: { type: 'number' }, minItems: 4, maxItems: 4 },
  },
} as const;

export const headingSchema = {
  title: 'Heading',
  type: 'object',
  additionalProperties: false,
  required: ['title', 'level', 'page', 'top'],
  properties: {
    title: { type: 'string' },
    level: { type: 'integer', minimum: 1 },
    page: { type: 'integer', minimum: 1 },
    top: { type: 'number' },
  },
} as const;

export const aboutDocumentSchema = {
  title: 'About a document',
  type: 'object',
  additionalProperties: false,
  properties: {
    title: { type: 'string' },
    author: { type: 'string' },
    created: { type: 'string' },
    modified: { type: 'string' },
  },
} as const;

export const laidOutSchema = {
  title: 'How a document came to its pages',
  type: 'object',
  additionalProperties: false,
  required: ['kind', 'form', 'taken'],
  properties: {
    kind: { enum: FORM_KINDS },
    form: formSchema,
    taken: formSchema,
    unfinished: {
      type: 'object',
      additionalProperties: false,
      required: ['trouble'],
      properties: {
        trouble: { type: ['string', 'null'] },
        done: { type: 'integer', minimum: 0 },
        of: { type: 'integer', minimum: 0 },
      },
      description: 'Only its first pages are there: the others still come, or never will, for a reason.',
    },
    sheets: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['name', 'hidden'],
        properties: { name: { type: 'string' }, hidden: { type: 'boolean' } },
      },
    },
    attachments: {
      type: 'array',
      items: { type: 'string' },
      description: 'Of a mail: what can be documents of their own.',
    },
  },
} as const;
