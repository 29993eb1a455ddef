import { SAME_HUNDREDTHS } from '../media-size';
import { allStrings, collections, firstNumber, firstString, type Attributes, type Value } from '../message';

/** More ranges or overrides than any person chooses: a ticket holds no text that long. */
const MOST_VALUES = 500;

/** As JSON tells values apart. */
const isSame = (one: Value, other: Value): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * Whether a printer that tells these attributes of itself takes a job template attribute with these values: what it says in
 * `…-supported` decides, as a list, as bounds, or of a collection member by member (RFC 8011, section 5.2).
 */
export function takesValues(told: Attributes, name: string, values: readonly Value[]): boolean {
  if (values.length === 0 || values.length > MOST_VALUES) return false;
  if (name === 'page-ranges') return areRanges(values);
  if (name === 'media-col') {
    const [media, ...others] = collections({ [name]: values }, name);
    return values.length === 1 && others.length === 0 && media !== undefined && takesMedia(told, media);
  }
  if (name === 'overrides') return collections({ [name]: values }, name).every((one) => takesOverride(told, one));
  const supported = told[`${name}-supported`] ?? [];
  return values.every((value) => supported.some((one) => isSame(one, value) || isWithin(value, one)));
}

const isWithin = (value: Value, bounds: Value): boolean =>
  value.tag === 'integer' &&
  bounds.tag === 'rangeOfInteger' &&
  value.value >= bounds.value.lower &&
  value.value <= bounds.value.upper;

/** From page 1, each behind the one before (RFC 8011, 5.2.7). */
function areRanges(values: readonly Value[]): boolean {
  let last = 0;
  return values.every((value) => {
    if (value.tag !== 'rangeOfInteger') return false;
    const { lower, upper } = value.value;
    const isInOrder = lower > last && upper >= lower;
    last = upper;
    return isInOrder;
  });
}

/** A source that there is, and a size that is one of those supported, or between their bounds. */
function takesMedia(told: Attributes, media: Attributes): boolean {
  const source = firstString(media, 'media-source');
  if (source !== null && !takesValues(told, 'media-source', media['media-source'] ?? [])) return false;
  if (!media['media-size']) return true;
  const [size] = collections(media, 'media-size');
  const edges = [firstNumber(size ?? {}, 'x-dimension') ?? 0, firstNumber(size ?? {}, 'y-dimension') ?? 0] as const;
  return collections(told, 'media-size-supported').some((one) => isOfSize(one, edges));
}

/** Whichever way the paper lies. */
function isOfSize(supported: Attributes, [x, y]: readonly [number, number]): boolean {
  const isEdge = (name: string, edge: number): boolean => {
    const [value] = supported[name] ?? [];
    if (value?.tag === 'rangeOfInteger') return edge >= value.value.lower && edge <= value.value.upper;
    return value?.tag === 'integer' && Math.abs(value.value - edge) <= SAME_HUNDREDTHS;
  };
  return (
    (isEdge('x-dimension', x) && isEdge('y-dimension', y)) || (isEdge('x-dimension', y) && isEdge('y-dimension', x))
  );
}

/** Pages, and of them only what may differ from page to page (PWG 5100.6, overrides-supported). */
function takesOverride(told: Attributes, { pages = [], ...others }: Attributes): boolean {
  const mayDiffer = allStrings(told, 'overrides-supported');
  return (
    pages.length > 0 &&
    areRanges(pages) &&
    Object.entries(others).every(([name, values]) => mayDiffer.includes(name) && takesValues(told, name, values))
  );
}
