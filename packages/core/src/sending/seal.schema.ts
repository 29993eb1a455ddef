import { OF_SHEET, type sheetSchemas } from '../settings';

/** JSON Schema of a seal (model, Seal): SHA-256 in hexadecimal. */
const digest = { type: 'string', pattern: '^[0-9a-f]{64}$' } as const;

const ofSheets = Object.fromEntries(OF_SHEET.map(({ name }) => [name, digest])) as {
  readonly [Name in keyof typeof sheetSchemas]: typeof digest;
};

/** Of each part by itself, so that what differs can be said. */
const parts = {
  type: 'object',
  additionalProperties: false,
  required: [
    'documents',
    'printer',
    'moment',
    'sets',
    'order',
    'trays',
    'papers',
    'sides',
    'pages',
    'marks',
    'texts',
    'slips',
    'informationSheet',
    'colours',
    'quality',
    'finishing',
    ...OF_SHEET.map(({ name }) => name),
  ],
  properties: {
    documents: digest,
    printer: digest,
    moment: digest,
    sets: digest,
    order: digest,
    trays: digest,
    papers: digest,
    sides: digest,
    pages: digest,
    marks: digest,
    texts: digest,
    slips: digest,
    informationSheet: digest,
    colours: digest,
    quality: digest,
    finishing: digest,
    ...ofSheets,
  },
} as const;

export const sealSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:seal',
  title: 'Seal',
  type: 'object',
  additionalProperties: false,
  required: ['digest', 'moment', 'parts'],
  properties: {
    digest,
    /** The moment that texts tell, in local time (ISO 8601). */
    moment: { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}$' },
    parts,
  },
} as const;

/** JSON Schema of the seal of many plans in their order, whose texts tell the moment at which each is sent. */
export const sealOfManySchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:seal-of-many',
  title: 'Seal of many',
  type: 'object',
  additionalProperties: false,
  required: ['digest', 'parts'],
  properties: { digest, parts },
} as const;
