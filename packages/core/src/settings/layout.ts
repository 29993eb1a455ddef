import type { FromSchema, JSONSchema } from 'json-schema-to-ts';
import { booklet } from './booklet';
import { filledIn } from './defaults';
import { grid } from './grid';
import type { Contradiction } from './setting';
import { tiles } from './tiles';

const schema = {
  default: { kind: 'grid' },
  description: 'What lies on a side: pages in cells, the halves of a booklet’s sheets, or a piece of one page',
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: [
    {
      type: 'object',
      additionalProperties: false,
      required: ['kind'],
      properties: { kind: { const: 'grid' }, ...grid },
    },
    {
      type: 'object',
      additionalProperties: false,
      required: ['kind'],
      properties: { kind: { const: 'booklet' }, ...booklet },
    },
    {
      type: 'object',
      additionalProperties: false,
      required: ['kind'],
      properties: { kind: { const: 'tiles' }, ...tiles },
    },
  ],
} as const;

type Defaults<T extends Readonly<Record<string, { readonly default: unknown }>>> = {
  readonly [Part in keyof T]: T[Part]['default'];
};

/** The usual values of the three layouts: routes of another kind start from them. */
export const gridDefaults = filledIn(schema, { kind: 'grid' }) as { readonly kind: 'grid' } & Defaults<typeof grid>;
export const bookletDefaults = filledIn(schema, { kind: 'booklet' }) as { readonly kind: 'booklet' } & Defaults<
  typeof booklet
>;

export const tilesDefaults = filledIn(schema, { kind: 'tiles' }) as { readonly kind: 'tiles' } & Defaults<typeof tiles>;

export const layout = {
  schema,
  carriers: ['ticket', 'route'],
  contradiction: contradictionOf,
  laidOver,
} as const;

type Given<T> = { readonly [Part in keyof T]?: FromSchema<T[Part] & JSONSchema> };
type Grid = { readonly kind: 'grid' } & Given<typeof grid>;
type Booklet = { readonly kind: 'booklet' } & Given<typeof booklet>;
type Tiles = { readonly kind: 'tiles' } & Given<typeof tiles>;
type Any = Grid | Booklet | Tiles;

/** Columns and rows are given both or not at all. */
function contradictionOf(value: Any): Contradiction | null {
  if (value.kind === 'booklet') return null;
  const { columns = null, rows = null } = value;
  if ((columns === null) === (rows === null)) return null;
  const [given, missing] = columns === null ? ['rows', 'columns'] : ['columns', 'rows'];
  return { part: `.${missing}`, problem: `${given} are given without ${missing}`, repair: 'give both or neither' };
}

/** A layout of the ticket's kind is completed from it; one of another kind stands on its own defaults. */
function laidOver(base: Any, own: Any): Any {
  if (own.kind === 'tiles') return { ...(base.kind === 'tiles' ? base : tilesDefaults), ...own };
  if (own.kind === 'booklet') return { ...(base.kind === 'booklet' ? base : bookletDefaults), ...own };
  const start = base.kind === 'grid' ? base : gridDefaults;
  // Pages a side given alone would be silently overruled by the ticket's columns and rows, so these are taken back.
  const givenAlone = own.pagesPerSide !== undefined && own.columns === undefined && own.rows === undefined;
  return { ...start, ...(givenAlone ? { columns: null, rows: null } : {}), ...own };
}
