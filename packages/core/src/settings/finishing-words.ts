/** What is done to a set: one of each kind at most. */
export type FinishingKind = 'staple' | 'stitch' | 'holes' | 'fold' | 'offset';

/** An edge of a sheet or a corner, which is where two meet. */
export type FinishingPlace =
  | 'left'
  | 'top'
  | 'right'
  | 'bottom'
  | 'top-left'
  | 'top-right'
  | 'bottom-left'
  | 'bottom-right';

interface Word {
  /** The enum of IPP (RFC 8011, 5.2.6; from 10 on PWG 5100.1, table 1). */
  readonly number: number;
  readonly kind: FinishingKind;
  /** Where; null where the printer alone knows, or it has no place. */
  readonly at: FinishingPlace | null;
  /** How many staples or holes. */
  readonly count: number;
}

const CORNERS = ['top-left', 'bottom-left', 'top-right', 'bottom-right'] as const;
const EDGES = ['left', 'top', 'right', 'bottom'] as const;

type Named<Prefix extends string, Place extends string> = `${Prefix}-${Place}`;
type Words<Name extends string> = Readonly<Record<Name, Word>>;

/** Words for a place each, whose numbers follow each other. */
const placed = <Prefix extends string, Place extends FinishingPlace>(
  prefix: Prefix,
  places: readonly Place[],
  first: number,
  kind: FinishingKind,
  count: number,
): Words<Named<Prefix, Place>> =>
  Object.fromEntries(
    places.map((at, index) => [`${prefix}-${at}`, { number: first + index, kind, at, count }]),
  ) as Record<string, Word> as Words<Named<Prefix, Place>>;

const unplaced = (number: number, kind: FinishingKind, count = 0): Word => ({ number, kind, at: null, count });

/** Every word that is understood; what else printers have is left to them. */
export const FINISHINGS = {
  staple: unplaced(4, 'staple', 1),
  ...placed('staple', CORNERS, 20, 'staple', 1),
  ...placed('staple-dual', EDGES, 28, 'staple', 2),
  ...placed('staple-triple', EDGES, 32, 'staple', 3),
  'saddle-stitch': unplaced(8, 'stitch', 2),
  'edge-stitch': unplaced(9, 'staple', 2),
  ...placed('edge-stitch', EDGES, 24, 'staple', 2),
  punch: unplaced(5, 'holes', 2),
  ...placed('punch-dual', EDGES, 74, 'holes', 2),
  ...placed('punch-triple', EDGES, 78, 'holes', 3),
  ...placed('punch-quad', EDGES, 82, 'holes', 4),
  fold: unplaced(10, 'fold'),
  'fold-half': unplaced(93, 'fold'),
  'fold-letter': unplaced(96, 'fold'),
  'fold-z': unplaced(100, 'fold'),
  'jog-offset': unplaced(14, 'offset'),
} as const satisfies Readonly<Record<string, Word>>;

export type Finishing = keyof typeof FINISHINGS;

export const FINISHING_NAMES = Object.keys(FINISHINGS) as Finishing[];

export const finishingOfNumber = (number: number): Finishing | null =>
  FINISHING_NAMES.find((name) => FINISHINGS[name].number === number) ?? null;

/**
 * A landscape set's places where those of the medium are: the standard counts as if all were portrait, and landscape is portrait
 * turned a quarter anticlockwise (RFC 8011, 5.2.6: the upper left corner of a landscape document is `staple-bottom-left`).
 */
const ON_MEDIUM: Readonly<Record<FinishingPlace, FinishingPlace>> = {
  left: 'bottom',
  bottom: 'right',
  right: 'top',
  top: 'left',
  'top-left': 'bottom-left',
  'bottom-left': 'bottom-right',
  'bottom-right': 'top-right',
  'top-right': 'top-left',
};

export const placeOnMedium = (place: FinishingPlace, held: 'portrait' | 'landscape'): FinishingPlace =>
  held === 'landscape' ? ON_MEDIUM[place] : place;

/** The word by which a printer is told of a place on a set that is held so; itself where it has no place. */
export function onMedium(name: Finishing, held: 'portrait' | 'landscape'): Finishing {
  const { at } = FINISHINGS[name];
  return at === null ? name : ((name.slice(0, -at.length) + placeOnMedium(at, held)) as Finishing);
}
