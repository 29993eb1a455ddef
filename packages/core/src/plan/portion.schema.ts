/** JSON Schema of marked sheets: closed ranges of sets, each with ranges of its sheets; all counted from 1. */
const range = {
  type: 'array',
  minItems: 2,
  maxItems: 2,
  items: { type: 'integer', minimum: 1 },
} as const as unknown as Pair;

/** The same to the compiler: how JSON Schema says "two of them" is another way in each of its drafts. */
interface Pair {
  readonly type: 'array';
  readonly minItems: 2;
  readonly maxItems: 2;
  readonly additionalItems: false;
  readonly items: readonly [{ readonly type: 'integer' }, { readonly type: 'integer' }];
}

export const marksSchema = {
  type: 'array',
  minItems: 1,
  maxItems: 100_000,
  items: {
    type: 'object',
    additionalProperties: false,
    required: ['sets', 'sheets'],
    properties: { sets: range, sheets: { type: 'array', minItems: 1, maxItems: 100_000, items: range } },
  },
} as const;

/** JSON Schema of what of a plan is printed: the first of its sets, all the others, or sheets that were marked. */
export const portionSchema = { anyOf: [{ enum: ['first-set', 'other-sets'] }, marksSchema] } as const;
