/**
 * JSON Schema of the ticket (model, Ticket): all that the person asks for, as data. Lengths in millimetres. A route's
 * parts reuse the ticket's own definitions; in a route nothing is filled in, since what it leaves out is the ticket's.
 */

const sides = { enum: ['one-sided', 'two-sided'] } as const;
const rotate = { enum: [0, 90, 180, 270] } as const;
const color = { enum: ['auto', 'monochrome'] } as const;
const trayId = { type: 'string', minLength: 1, maxLength: 255, pattern: '^[a-z0-9][a-z0-9._-]*$' } as const;
const margin = { type: 'number', minimum: 0, maximum: 100 } as const;
const selection = { type: 'string', maxLength: 10000 } as const;
const cellsAlong = { type: ['integer', 'null'], minimum: 1, maximum: 8 } as const;
const pagesPerSide = { enum: [1, 2, 4, 6, 8, 9, 16] } as const;
/** PWG 5100.3, presentation-direction-number-up. */
const flow = {
  enum: [
    'toright-tobottom',
    'toright-totop',
    'toleft-tobottom',
    'toleft-totop',
    'tobottom-toright',
    'tobottom-toleft',
    'totop-toright',
    'totop-toleft',
  ],
} as const;
const repeat = { enum: ['none', 'fill-side'] } as const;
const turn = { enum: ['upright', 'best'] } as const;
const gutter = { type: 'number', minimum: 0, maximum: 100 } as const;
const marks = { enum: ['none', 'cut'] } as const;
const foldMarks = { enum: ['none', 'fold'] } as const;
const size = { type: 'string', minLength: 1, maxLength: 255 } as const;
const orientation = { enum: ['auto', 'portrait', 'landscape'] } as const;
const type = { type: ['string', 'null'], maxLength: 255 } as const;
const mode = { enum: ['auto-fit', 'fit', 'fill', 'none', 'fit-width', 'percent'] } as const;
const percent = { type: 'number', exclusiveMinimum: 0, maximum: 1000 } as const;
const sheetsPerSignature = { type: 'integer', minimum: 0, maximum: 1000 } as const;
const creep = { type: 'number', minimum: 0, maximum: 5 } as const;

/** The usual values of the two layouts, said once: the schema fills them in, and routes of another kind start from them. */
export const gridDefaults = {
  kind: 'grid',
  pagesPerSide: 1,
  columns: null,
  rows: null,
  flow: 'toright-tobottom',
  repeat: 'none',
  turn: 'upright',
  gutter: 0,
  frame: false,
  marks: 'none',
} as const;
export const bookletDefaults = {
  kind: 'booklet',
  sheetsPerSignature: 0,
  creep: 0,
  cover: null,
  marks: 'none',
} as const;

/** A route's fields; that it must carry at least one beside its pages is said where the ticket lists routes. */
export const routeSchema = {
  type: 'object',
  additionalProperties: false,
  required: ['pages'],
  properties: {
    name: { type: 'string', maxLength: 255 },
    document: { type: 'integer', minimum: 1 },
    pages: selection,
    tray: trayId,
    sides,
    paper: {
      type: 'object',
      additionalProperties: false,
      properties: { size, orientation, type },
    },
    layout: {
      type: 'object',
      required: ['kind'],
      discriminator: { propertyName: 'kind' },
      oneOf: [
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind'],
          properties: {
            kind: { const: 'grid' },
            pagesPerSide,
            columns: cellsAlong,
            rows: cellsAlong,
            flow,
            repeat,
            turn,
            gutter,
            frame: { type: 'boolean' },
            marks,
          },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind'],
          properties: {
            kind: { const: 'booklet' },
            sheetsPerSignature,
            creep,
            cover: { anyOf: [trayId, { type: 'null' }] },
            marks: foldMarks,
          },
        },
      ],
    },
    scale: { type: 'object', additionalProperties: false, properties: { mode, percent } },
    margin,
    rotate,
    color,
    ownSheet: { type: 'boolean' },
  },
} as const;

export const ticketSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:ticket',
  title: 'Ticket',
  type: 'object',
  additionalProperties: false,
  required: ['version', 'documents'],
  properties: {
    version: { const: 1 },
    title: { type: 'string', maxLength: 255, default: '' },
    documents: {
      type: 'array',
      minItems: 1,
      maxItems: 1000,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['file'],
        properties: {
          file: { type: 'string', minLength: 1, maxLength: 4096 },
          pages: { ...selection, default: 'all' },
          numbering: { enum: ['position', 'labels'], default: 'position' },
          rotate: { ...rotate, default: 0 },
        },
      },
    },
    copies: { type: 'integer', minimum: 1, maximum: 100000, default: 1 },
    collate: { type: 'boolean', default: true },
    delivery: { enum: ['first-to-last', 'last-to-first'], default: 'first-to-last' },
    sides: { ...sides, default: 'one-sided' },
    bind: { enum: ['left', 'right', 'top'], default: 'left' },
    layout: {
      default: { kind: 'grid' },
      type: 'object',
      required: ['kind'],
      discriminator: { propertyName: 'kind' },
      oneOf: [
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind'],
          properties: {
            kind: { const: 'grid' },
            pagesPerSide: { ...pagesPerSide, default: gridDefaults.pagesPerSide },
            columns: { ...cellsAlong, default: gridDefaults.columns },
            rows: { ...cellsAlong, default: gridDefaults.rows },
            flow: { ...flow, default: gridDefaults.flow },
            repeat: { ...repeat, default: gridDefaults.repeat },
            turn: { ...turn, default: gridDefaults.turn },
            gutter: { ...gutter, default: gridDefaults.gutter },
            frame: { type: 'boolean', default: gridDefaults.frame },
            marks: { ...marks, default: gridDefaults.marks },
          },
        },
        {
          type: 'object',
          additionalProperties: false,
          required: ['kind'],
          properties: {
            kind: { const: 'booklet' },
            sheetsPerSignature: { ...sheetsPerSignature, default: bookletDefaults.sheetsPerSignature },
            creep: { ...creep, default: bookletDefaults.creep },
            cover: { anyOf: [trayId, { type: 'null' }], default: bookletDefaults.cover },
            marks: { ...foldMarks, default: bookletDefaults.marks },
          },
        },
      ],
    },
    paper: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        size: { ...size, default: 'as-page' },
        orientation: { ...orientation, default: 'auto' },
        type: { ...type, default: null },
      },
    },
    scale: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: { mode: { ...mode, default: 'auto-fit' }, percent: { ...percent, default: 100 } },
    },
    margin: { ...margin, default: 0 },
    color: { ...color, default: 'auto' },
    quality: { enum: ['draft', 'normal', 'high'], default: 'normal' },
    newSheet: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        documents: { type: 'boolean', default: true },
        sections: { type: 'boolean', default: false },
      },
    },
    slips: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        between: { enum: ['nothing', 'sets', 'documents'], default: 'nothing' },
        tray: { anyOf: [trayId, { type: 'null' }], default: null },
      },
    },
    /** A sheet before the job that says what it is, and who prints it; tray null: whichever holds the first sheet's paper. */
    informationSheet: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        print: { type: 'boolean', default: false },
        by: { type: 'string', maxLength: 120, default: '' },
        tray: { anyOf: [trayId, { type: 'null' }], default: null },
      },
    },
    tray: { ...trayId, default: 'auto' },
    /** Lines of text at the head and foot of every page; what stands in braces is filled in. */
    lines: {
      type: 'array',
      maxItems: 12,
      default: [],
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['at', 'text'],
        properties: {
          at: { enum: ['top-left', 'top-center', 'top-right', 'bottom-left', 'bottom-center', 'bottom-right'] },
          text: { type: 'string', minLength: 1, maxLength: 200 },
          /** Points. */
          size: { type: 'number', minimum: 4, maximum: 72, default: 8 },
        },
      },
    },
    routes: {
      type: 'array',
      maxItems: 1000,
      default: [],
      items: {
        ...routeSchema,
        anyOf: [
          { required: ['tray'] },
          { required: ['sides'] },
          { required: ['paper'] },
          { required: ['layout'] },
          { required: ['scale'] },
          { required: ['margin'] },
          { required: ['rotate'] },
          { required: ['color'] },
          { required: ['ownSheet'] },
        ],
      },
    },
  },
} as const;
