import { profileSchemas } from '../settings';
import { trayId } from '../settings/tray-id';

/**
 * JSON Schema of the printer profile (model, Ticket). Lengths in millimetres, weights in grams a square metre. What tells
 * whether a setting can be had stands with the setting.
 */
export const printerSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'foglio:printer',
  title: 'Printer profile',
  type: 'object',
  additionalProperties: false,
  required: ['name', 'trays'],
  properties: {
    name: { type: 'string', minLength: 1, maxLength: 200 },
    ...profileSchemas,
    /** The most sheets that it staples together; null: it does not say. */
    maxStapled: { type: ['integer', 'null'], minimum: 2, default: null },
    margin: { type: 'number', minimum: 0, maximum: 100, default: 0 },
    maxDuplexWeight: { type: ['number', 'null'], exclusiveMinimum: 0, default: null },
    delivers: { enum: ['face-down', 'face-up'], default: 'face-down' },
    printsOn: { enum: ['lower', 'upper'], default: 'lower' },
    trays: {
      type: 'array',
      minItems: 1,
      maxItems: 50,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['id', 'size'],
        properties: {
          id: trayId,
          name: { type: ['string', 'null'], default: null },
          size: { type: 'string', pattern: '^[a-z0-9-]+_[a-z0-9.-]+_[0-9.]+x[0-9.]+(mm|in)$' },
          type: { type: ['string', 'null'], default: null },
          weight: { type: ['number', 'null'], exclusiveMinimum: 0, default: null },
          capacity: { type: ['integer', 'null'], minimum: 0, default: null },
          loaded: { type: ['integer', 'null'], minimum: 0, default: null },
          price: { type: 'number', minimum: 0, default: 0 },
          /** Of its paper; null: as everywhere in this printer. */
          margin: { type: ['number', 'null'], minimum: 0, maximum: 100, default: null },
        },
      },
    },
    prices: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        mono: { type: 'number', minimum: 0, default: 0 },
        color: { type: 'number', minimum: 0, default: 0 },
        /** At which of the two it bills black that is set in red, green and blue; left out: as black. */
        blackOfColors: { enum: ['mono', 'color'] },
      },
    },
    sidesPerMinute: { type: ['number', 'null'], exclusiveMinimum: 0, default: null },
    twoSidedFactor: { type: 'number', exclusiveMinimum: 0, maximum: 1, default: 1 },
    refeedTray: { type: ['string', 'null'], default: null },
    jobs: {
      type: 'object',
      additionalProperties: false,
      default: {},
      properties: {
        overrides: { type: 'array', items: { type: 'string' }, default: [] },
        documents: { type: 'boolean', default: false },
        /** What it may be told of a job, and with which values; any where none is listed. Null: it does not say. */
        takes: {
          type: ['object', 'null'],
          additionalProperties: { type: 'array', items: { type: 'string' } },
          default: null,
        },
        mostCopies: { type: ['integer', 'null'], minimum: 1, default: null },
        /** Media types of documents, and numbers of operations; none: it does not say. */
        formats: { type: 'array', items: { type: 'string' }, default: [] },
        operations: { type: 'array', items: { type: 'integer' }, default: [] },
        /** How it takes pictures of sides (PWG 5102.4), in dots an inch; null: it does not. */
        raster: {
          type: ['object', 'null'],
          additionalProperties: false,
          required: ['dpi', 'inColor', 'sheetBack'],
          default: null,
          properties: {
            dpi: { type: 'integer', minimum: 50, maximum: 2400 },
            inColor: { type: 'boolean' },
            sheetBack: { enum: ['normal', 'flipped', 'manual-tumble', 'rotated'] },
          },
        },
      },
    },
  },
} as const;
