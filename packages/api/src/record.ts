import type { AboutDocument, Heading, PageFacts, Printer, Ticket } from '@foglio/core';
import type { FromSchema, JSONSchema } from 'json-schema-to-ts';

/** What the schemas of the API are made of. */

/** Schemas of the core are named by their title. */
type Known = [
  { pattern: { title: 'Ticket' }; output: Ticket },
  { pattern: { title: 'Printer profile' }; output: Printer },
  { pattern: { title: 'Page facts' }; output: PageFacts },
  { pattern: { title: 'Heading' }; output: Heading },
  { pattern: { title: 'About a document' }; output: AboutDocument },
];

/** What a schema describes. */
export type Described<S extends JSONSchema> = FromSchema<S, { deserialize: Known }>;

export const id = { type: 'string', format: 'uuid' } as const;
export const moment = { type: 'string', format: 'date-time' } as const;
export const count = { type: 'integer', minimum: 0 } as const;
export const position = { type: 'integer', minimum: 1 } as const;
export const words = { type: 'string' } as const;
export const maybeCount = { type: ['integer', 'null'], minimum: 0 } as const;
export const maybeWords = { type: ['string', 'null'] } as const;
export const listOfWords = { type: 'array', items: words } as const;
export const orientation = { enum: ['portrait', 'landscape'] } as const;

/** What else there is to say of a record. */
interface More<Q> {
  readonly description?: string;
  /** Fields that need not be there. */
  readonly optional?: Q;
}

/** An object of these fields, all of which are there, and no others. */
export const record = <const T extends string, const P extends object, const Q extends object = object>(
  title: T,
  fields: P,
  { description, optional }: More<Q> = {},
) =>
  ({
    title,
    ...(description === undefined ? {} : { description }),
    type: 'object',
    additionalProperties: false,
    required: Object.keys(fields) as (keyof P & string)[],
    properties: { ...fields, ...optional } as P & Q,
  }) as const;
