/** Values in a shape that goes from one thread to another many times sooner: columns of numbers in place of thousands of objects. */
export type Packed =
  | { readonly kind: 'plain'; readonly values: readonly unknown[] }
  | { readonly kind: 'numbers'; readonly values: Float64Array }
  /** Each is one of a few. */
  | { readonly kind: 'table'; readonly table: readonly unknown[]; readonly places: Uint8Array }
  /** Some of them are null. */
  | { readonly kind: 'nullable'; readonly present: Uint8Array; readonly items: Packed }
  | { readonly kind: 'arrays'; readonly lengths: Float64Array; readonly items: Packed }
  | { readonly kind: 'objects'; readonly length: number; readonly columns: readonly Column[] }
  /** An object of which one property is worth packing. */
  | { readonly kind: 'holder'; readonly rest: object; readonly name: string; readonly items: Packed };

interface Column {
  readonly name: string;
  /** Which of the objects have it; null: all. */
  readonly present: Uint8Array | null;
  readonly values: Packed;
}

/** Fewer than this are sent as they are. */
const WORTH_IT = 16;

const MOST_IN_TABLE = 255;

/** Packs an object by the array that is by far its largest part. */
export const packHolder = <T extends object>(holder: T, name: keyof T & string): Packed => {
  const { [name]: items, ...rest } = holder;
  return { kind: 'holder', rest, name, items: pack(items as readonly unknown[]) };
};

/** What was packed, equal to what it was; what was one object in many places is one again. */
export function unpackHolder<T>(packed: Packed): T {
  if (packed.kind !== 'holder') throw new Error(`${packed.kind} is no packed object`);
  return { ...packed.rest, [packed.name]: unpack(packed.items) } as T;
}

/** The parts of memory that are handed over instead of being copied. */
export function buffersOf(packed: Packed): ArrayBufferLike[] {
  switch (packed.kind) {
    case 'plain':
      return [];
    case 'numbers':
      return [packed.values.buffer];
    case 'table':
      return [packed.places.buffer];
    case 'nullable':
      return [packed.present.buffer, ...buffersOf(packed.items)];
    case 'arrays':
      return [packed.lengths.buffer, ...buffersOf(packed.items)];
    case 'objects':
      return packed.columns.flatMap(({ present, values }) => [
        ...(present ? [present.buffer] : []),
        ...buffersOf(values),
      ]);
    case 'holder':
      return buffersOf(packed.items);
  }
}

function pack(values: readonly unknown[]): Packed {
  if (values.length < WORTH_IT) return { kind: 'plain', values };
  const shorter = asNumbers(values) ?? asTable(values);
  if (shorter) return shorter;
  if (values.includes(null)) return asNullable(values);
  if (values.every(Array.isArray)) return asArrays(values as readonly unknown[][]);
  if (values.every(isObject)) return asColumns(values);
  return { kind: 'plain', values };
}

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;

// Plain loops, each over all values once: packing is waited for at every key that is typed.

/** Null where they are not all numbers. */
function asNumbers(values: readonly unknown[]): Packed | null {
  if (typeof values[0] !== 'number') return null;
  const numbers = new Float64Array(values.length);
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index];
    if (typeof value !== 'number') return null;
    numbers[index] = value;
  }
  return { kind: 'numbers', values: numbers };
}

/** Null where they are not so few. */
function asTable(values: readonly unknown[]): Packed | null {
  const places = new Uint8Array(values.length);
  const known = new Map<unknown, number>();
  // Mostly one is as the one before it.
  let before: { readonly value: unknown; readonly place: number } | null = null;
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index];
    if (before === null || !Object.is(value, before.value)) {
      // A map takes it for 0.
      if (Object.is(value, -0)) return null;
      let place = known.get(value);
      if (place === undefined) {
        if (known.size === MOST_IN_TABLE || known.size > values.length / 2) return null;
        place = known.size;
        known.set(value, place);
      }
      before = { value, place };
    }
    places[index] = before.place;
  }
  return { kind: 'table', table: [...known.keys()], places };
}

function asNullable(values: readonly unknown[]): Packed {
  const present = new Uint8Array(values.length);
  const items: unknown[] = [];
  for (let index = 0; index < values.length; index += 1) {
    if (values[index] === null) continue;
    present[index] = 1;
    items.push(values[index]);
  }
  return { kind: 'nullable', present, items: pack(items) };
}

function asArrays(values: readonly (readonly unknown[])[]): Packed {
  const lengths = new Float64Array(values.length);
  const items: unknown[] = [];
  for (let index = 0; index < values.length; index += 1) {
    const some = values[index]!;
    lengths[index] = some.length;
    for (let place = 0; place < some.length; place += 1) items.push(some[place]);
  }
  return { kind: 'arrays', lengths, items: pack(items) };
}

function asColumns(objects: readonly Readonly<Record<string, unknown>>[]): Packed {
  const names = new Set<string>();
  for (const object of objects) for (const name in object) names.add(name);
  const columns = Array.from(names, (name): Column => {
    const having = new Uint8Array(objects.length);
    const values: unknown[] = [];
    for (let index = 0; index < objects.length; index += 1) {
      const value = objects[index]![name];
      if (value === undefined && !(name in objects[index]!)) continue;
      having[index] = 1;
      values.push(value);
    }
    return { name, present: values.length === objects.length ? null : having, values: pack(values) };
  });
  return { kind: 'objects', length: objects.length, columns };
}

function unpack(packed: Packed): unknown[] {
  switch (packed.kind) {
    case 'plain':
      return [...packed.values];
    case 'numbers':
      return Array.from(packed.values);
    case 'table':
      return each(packed.places.length, (index) => packed.table[packed.places[index]!]);
    case 'nullable': {
      const items = unpack(packed.items);
      let next = 0;
      return each(packed.present.length, (index) => (packed.present[index] === 1 ? items[next++] : null));
    }
    case 'arrays': {
      const items = unpack(packed.items);
      let at = 0;
      return each(packed.lengths.length, (index) => items.slice(at, (at += packed.lengths[index]!)));
    }
    case 'objects': {
      const objects = each(packed.length, (): Record<string, unknown> => ({}));
      for (const { name, present, values } of packed.columns) {
        const column = unpack(values);
        let next = 0;
        for (let index = 0; index < objects.length; index += 1) {
          if (!present || present[index] === 1) objects[index]![name] = column[next++];
        }
      }
      return objects;
    }
    case 'holder':
      return [unpackHolder(packed)];
  }
}

/** Ten times as quick as the engine's own way from one kind of array to another. */
function each<T>(length: number, make: (index: number) => T): T[] {
  const made: T[] = [];
  for (let index = 0; index < length; index += 1) made.push(make(index));
  return made;
}
