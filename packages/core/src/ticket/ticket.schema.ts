import { carriedBy, schemasOf } from '../settings';
import { withoutDefaults } from '../settings/without-defaults';

/**
 * JSON Schema of the ticket (model, Ticket): all that the person asks for, as data. Lengths in millimetres. Folded from the
 * settings; what is said here is what a ticket is made of beside them.
 */

/** A route's fields; that it must carry at least one beside its pages is said where the ticket lists routes. */
export const routeSchema = {
  type: 'object',
  additionalProperties: false,
  required: ['pages'],
  properties: {
    name: { type: 'string', maxLength: 255, description: 'What it is called' },
    document: { type: 'integer', minimum: 1, description: 'Of which document, from 1; left out: of each' },
    pages: withoutDefaults(schemasOf('document').pages),
    ...withoutDefaults(schemasOf('route')),
  },
} as const;

const somethingOfItsOwn: { readonly anyOf?: never } = Object.fromEntries([
  ['anyOf', carriedBy('route').map((name) => ({ required: [name] }))],
]);

export const ticketSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:ticket',
  title: 'Ticket',
  type: 'object',
  additionalProperties: false,
  required: ['version', 'documents'],
  properties: {
    version: { const: 1 },
    documents: {
      type: 'array',
      minItems: 1,
      maxItems: 1000,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['file'],
        properties: { file: { type: 'string', minLength: 1, maxLength: 4096 }, ...schemasOf('document') },
      },
    },
    ...schemasOf('ticket'),
    routes: { type: 'array', maxItems: 1000, default: [], items: { ...routeSchema, ...somethingOfItsOwn } },
  },
} as const;
