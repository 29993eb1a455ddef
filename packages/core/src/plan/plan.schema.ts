import { sheetSchemas } from '../settings';
import { finishings } from '../settings/finishings';

/** JSON Schema of the plan (model, Plan). Lengths in points, the origin at a side's lower left corner. */
const number = { type: 'number' } as const;
const sheetNumbers = { type: 'array', items: { type: 'integer', minimum: 1 } } as const;

const boxOrNone = {
  anyOf: [
    { type: 'null' },
    { type: 'array', minItems: 4, maxItems: 4, additionalItems: false, items: [number, number, number, number] },
  ],
} as const;

const side = {
  type: 'object',
  additionalProperties: false,
  required: ['orientation', 'cells'],
  properties: {
    /** Frames, cut marks and fold marks, as lines from one point to another; only there where the layout asks for any. */
    marks: {
      type: 'array',
      items: {
        type: 'array',
        minItems: 4,
        maxItems: 4,
        additionalItems: false,
        items: [number, number, number, number],
      },
    },
    /** Lines of text at the head and foot, from where the first letter stands on its line; turned by 180 degrees or not. */
    texts: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['text', 'x', 'y', 'size', 'turn'],
        properties: { text: { type: 'string' }, x: number, y: number, size: number, turn: { enum: [0, 180] } },
      },
    },
    orientation: { enum: ['portrait', 'landscape'] },
    cells: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['document', 'page', 'x', 'y', 'width', 'height', 'scale', 'turn', 'clip', 'source'],
        properties: {
          document: { type: 'integer', minimum: 1 },
          page: { type: 'integer', minimum: 1 },
          x: { type: 'number' },
          y: { type: 'number' },
          width: { type: 'number', exclusiveMinimum: 0 },
          height: { type: 'number', exclusiveMinimum: 0 },
          scale: { type: 'number', exclusiveMinimum: 0 },
          turn: { enum: [0, 90, 180, 270] },
          clip: boxOrNone,
          /** What of the page lies there, on the page as read; null: all of it. */
          source: boxOrNone,
        },
      },
    },
  },
} as const;

const paper = {
  type: 'object',
  additionalProperties: false,
  required: ['size', 'width', 'height'],
  properties: { size: { type: 'string' }, width: { type: 'number' }, height: { type: 'number' } },
} as const;

const sides = { enum: ['one-sided', 'two-sided-long-edge', 'two-sided-short-edge'] } as const;
const fed = { enum: ['first', 'last'] } as const;

const counts = { type: 'object', additionalProperties: { type: 'integer' } } as const;

const frontPass = {
  type: 'object',
  additionalProperties: false,
  required: ['side', 'order'],
  properties: { side: { const: 'front' }, order: sheetNumbers },
} as const;

const backPass = {
  type: 'object',
  additionalProperties: false,
  required: ['side', 'order', 'handling', 'turned'],
  properties: {
    side: { const: 'back' },
    order: sheetNumbers,
    handling: { enum: ['as-it-lies', 'turn-over'] },
    turned: sheetNumbers,
  },
} as const;

export const planSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:plan',
  title: 'Plan',
  type: 'object',
  additionalProperties: false,
  required: [
    'version',
    'sheets',
    'sets',
    'collate',
    'delivery',
    'slipBetweenSets',
    'informationSheet',
    'tally',
    'passes',
    'checks',
  ],
  properties: {
    version: { const: 1 },
    sheets: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['index', 'run', 'tray', 'slip', 'paper', 'sides', 'front', 'back'],
        properties: {
          index: { type: 'integer', minimum: 1 },
          run: { type: 'integer', minimum: 1 },
          tray: { type: ['string', 'null'] },
          slip: { type: 'boolean' },
          paper,
          sides,
          front: side,
          back: { anyOf: [side, { type: 'null' }] },
          ...sheetSchemas,
          /** Of a booklet's sheet alone: the signature of its run that it is folded in. */
          signature: { type: 'integer', minimum: 1 },
        },
      },
    },
    sets: { type: 'integer', minimum: 1 },
    collate: { type: 'boolean' },
    delivery: { enum: ['first-to-last', 'last-to-first'] },
    slipBetweenSets: {
      anyOf: [
        { type: 'null' },
        {
          type: 'object',
          additionalProperties: false,
          required: ['tray', 'paper'],
          properties: { tray: { type: ['string', 'null'] }, paper, ...sheetSchemas },
        },
      ],
    },
    /** Only where something is done to the sets: what, the way most of their sides are read, and the first sheet of each part. */
    finishing: {
      type: 'object',
      additionalProperties: false,
      required: ['finishings', 'held', 'starts'],
      properties: {
        finishings: { type: 'array', items: finishings.schema.items },
        held: { enum: ['portrait', 'landscape'] },
        starts: sheetNumbers,
      },
    },
    /** A sheet before the job that stands in no set. */
    informationSheet: {
      anyOf: [
        { type: 'null' },
        {
          type: 'object',
          additionalProperties: false,
          required: ['tray', 'paper', 'sides', 'front', 'back', 'fed', 'fedForBacks'],
          properties: {
            tray: { type: ['string', 'null'] },
            paper,
            sides,
            front: side,
            back: { anyOf: [side, { type: 'null' }] },
            ...sheetSchemas,
            /** Before all other sheets or after them; it lies before them in the end. */
            fed,
            /** The same for the second of two passes; null where there is none. */
            fedForBacks: { anyOf: [fed, { type: 'null' }] },
          },
        },
      ],
    },
    tally: {
      type: 'object',
      additionalProperties: false,
      required: [
        'sheetsPerSet',
        'sheets',
        'sides',
        'blankSides',
        'pieces',
        'piecesOver',
        'byTray',
        'byPaper',
        'cost',
        'weightGrams',
        'heightMm',
        'seconds',
      ],
      properties: {
        sheetsPerSet: { type: 'integer' },
        sheets: { type: 'integer' },
        sides: { type: 'integer' },
        blankSides: { type: 'integer' },
        /** Over all sets, with those that only fill the last sheets; null where the ticket counts no pieces. */
        pieces: { type: ['integer', 'null'] },
        piecesOver: { type: ['integer', 'null'] },
        byTray: counts,
        byPaper: counts,
        cost: { type: 'number' },
        weightGrams: { type: 'number' },
        heightMm: { type: 'number' },
        seconds: { type: ['number', 'null'] },
      },
    },
    /** Two where both sides are printed by hand; one where the ticket asks for one face alone. */
    passes: {
      anyOf: [
        { type: 'null' },
        { type: 'array', minItems: 2, maxItems: 2, additionalItems: false, items: [frontPass, backPass] },
        { type: 'array', minItems: 1, maxItems: 1, additionalItems: false, items: [frontPass] },
        { type: 'array', minItems: 1, maxItems: 1, additionalItems: false, items: [backPass] },
      ],
    },
    checks: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['code', 'level', 'message', 'sheets', 'pages'],
        properties: {
          code: {
            enum: [
              'not-laid-out',
              'tray-unknown',
              'tray-wrong-paper',
              'no-tray-for-paper',
              'tray-short',
              'too-heavy-for-duplex',
              'two-passes',
              'two-passes-mixed',
              'route-unused',
              'booklet-split',
              'text-too-small',
              'size-changed',
              'trays-by-size',
              'output-bin-unknown',
              'finishing-unknown',
              'too-many-to-staple',
              'mixed-sizes-stapled',
              'staple-off-binding',
              'format-unknown',
              'outside-printable',
              'line-over-content',
              'blank-back',
              'booklet-padded',
              'color-on-mono',
              'gray-coded-as-color',
              'uncollated',
              'too-many-written-out',
              'large-run',
              'separate-jobs',
              'backs-read-otherwise',
              'comes-out-last-first',
            ],
          },
          level: { enum: ['stop', 'caution', 'note'] },
          message: { type: 'string' },
          sheets: sheetNumbers,
          pages: {
            type: 'array',
            items: {
              type: 'object',
              additionalProperties: false,
              required: ['document', 'page'],
              properties: { document: { type: 'integer', minimum: 1 }, page: { type: 'integer', minimum: 1 } },
            },
          },
          set: { type: 'integer', minimum: 1 },
          /** A change that settles it: fields of the ticket with the values to give them. */
          repair: {
            type: 'object',
            additionalProperties: false,
            required: ['label', 'patch'],
            properties: { label: { type: 'string' }, patch: { type: 'object' } },
          },
        },
      },
    },
  },
} as const;
