import { FINISHING_NAMES, FINISHINGS, finishingOfNumber, onMedium, type Finishing } from './finishing-words';
import type { Contradiction } from './setting';

const NUMBERS = Object.fromEntries(FINISHING_NAMES.map((name) => [name, FINISHINGS[name].number]));

/** What a printer says where it can do nothing (RFC 8011, 5.2.6): "none". */
const NONE = '3';

export const finishings = {
  schema: {
    type: 'array',
    maxItems: 5,
    uniqueItems: true,
    items: { enum: FINISHING_NAMES },
    default: [],
    description:
      'Staples, holes, folds: keywords of RFC 8011, 5.2.6, and PWG 5100.1; places as the set is held and read',
  },
  carriers: ['ticket'],
  /** RFC 8011, section 5.2.6. */
  told: { attribute: 'finishings', of: 'job', syntax: 'enums', values: NUMBERS },
  known: {
    field: 'finishings',
    schema: { type: 'array', maxItems: 100, items: { enum: FINISHING_NAMES }, default: [] },
    asked: 'finishings-supported',
    syntax: 'enum',
    read: (numbers: readonly string[]): Finishing[] => [
      ...new Set(numbers.flatMap((number) => finishingOfNumber(Number(number)) ?? [])),
    ],
    /** However the set turns out to be held. */
    needed: (names: readonly Finishing[]): Finishing[] => [
      ...new Set(names.flatMap((name) => [name, onMedium(name, 'landscape')])),
    ],
    answer: (names: readonly Finishing[]): readonly string[] => [
      NONE,
      ...names.map((name) => String(FINISHINGS[name].number)),
    ],
  },
  contradiction: (names: readonly Finishing[]): Contradiction | null => {
    const kinds = names.map((name) => FINISHINGS[name].kind);
    const second = kinds.findIndex((kind, place) => kinds.indexOf(kind) < place);
    if (second < 0) return null;
    const first = names[kinds.indexOf(kinds[second]!)];
    return {
      part: `[${second}]`,
      problem: `"${names[second]}" and "${first}" are of one kind`,
      repair: 'keep one of them',
    };
  },
} as const;
