import { bookletDefaults, fragmentOf, gridDefaults, plainTicket, tilesDefaults, type Ticket } from '@foglio/core';
import type { Choice, NumberField, Situation } from './situation';

/** What an aspect changes of the ticket, by its place in it: "copies", "paper.size", "documents.rotate". */
export type Field = Alone | Within | OfDocument;

type Plain = Omit<Ticket, 'version' | 'documents' | 'routes' | 'lines' | 'finishings'>;
type Keys<T> = T extends unknown ? keyof T & string : never;
type Alone = { [Name in keyof Plain]: Plain[Name] extends object ? never : Name }[keyof Plain];
type Within = {
  [Name in keyof Plain]: Plain[Name] extends object ? `${Name}.${Exclude<Keys<Plain[Name]>, 'kind'>}` : never;
}[keyof Plain];
type OfDocument = `documents.${Keys<Ticket['documents'][number]>}`;

type Part<T, Name> = T extends unknown ? (Name extends keyof T ? T[Name] : never) : never;

export type ValueOf<F extends Field> = F extends `documents.${infer Name}`
  ? Part<Ticket['documents'][number], Name>
  : F extends `${infer Name}.${infer Of}`
    ? Name extends keyof Plain
      ? Part<Plain[Name], Of>
      : never
    : F extends keyof Plain
      ? Plain[F]
      : never;

type Loose = Readonly<Record<string, unknown>>;

/** The ticket's value, or undefined where the layout is of a kind that has no such thing. */
export function valueAt<F extends Field>({ ticket, at }: Situation, field: F): ValueOf<F> | undefined {
  const [name, part] = field.split('.') as [keyof Ticket, string | undefined];
  const whole = name === 'documents' ? ticket.documents[at] : ticket[name];
  return (part === undefined ? whole : (whole as Loose | undefined)?.[part]) as ValueOf<F> | undefined;
}

/** The change that gives a field a value; none where the layout is of a kind that has no such field. */
export function patchOf<F extends Field>(situation: Situation, field: F, value: ValueOf<F>): Partial<Ticket> {
  const { ticket, at } = situation;
  const [name, part] = field.split('.') as [keyof Ticket, string | undefined];
  if (part === undefined) return { [name]: value };
  if (name === 'documents') {
    return { documents: ticket.documents.map((one, index) => (index === at ? { ...one, [part]: value } : one)) };
  }
  const whole = ticket[name] as Loose;
  return part in whole ? { [name]: { ...whole, [part]: value } } : {};
}

/** The parts of the ticket in which fields stand; none where the layout is of a kind that has no such field. */
export const partsOf = ({ ticket }: Situation, fields: readonly Field[]): (keyof Ticket)[] =>
  fields.flatMap((field) => {
    const [name, part] = field.split('.') as [keyof Ticket, string | undefined];
    return part === undefined || name === 'documents' || part in (ticket[name] as Loose) ? [name] : [];
  });

/** Made once: the sentence asks for it at every aspect, with every key that is typed. */
const PLAIN = plainTicket(['']);

const LAYOUTS = { grid: gridDefaults, booklet: bookletDefaults, tiles: tilesDefaults } as const;

/** The change that gives fields their defaults. */
export function plainPatch(situation: Situation, fields: readonly Field[]): Partial<Ticket> {
  const { layout } = situation.ticket;
  const plain = { ...PLAIN, layout: LAYOUTS[layout.kind] };
  return fields.reduce<Partial<Ticket>>((patch, field) => {
    const changed = { ...situation, ticket: { ...situation.ticket, ...patch } };
    const value = valueAt({ ...situation, ticket: plain, at: 0 }, field);
    return value === undefined ? patch : { ...patch, ...patchOf(changed, field, value as never) };
  }, {});
}

/** The values of a field that may be taken, each with its label. */
export const choicesOf = <F extends Field>(
  situation: Situation,
  field: F,
  labels: readonly (readonly [ValueOf<F>, string])[],
): Choice[] => labels.map(([value, label]) => ({ label, patch: patchOf(situation, field, value) }));

type NumberName = { [F in Field]: number extends ValueOf<F> ? F : never }[Field];

/** A number that may be typed, within the bounds of its schema. */
export function numberOf(
  situation: Situation,
  field: NumberName,
  words: Pick<NumberField, 'label' | 'unit'> & { readonly step?: number; readonly least?: number },
): NumberField {
  const { minimum = 0, maximum = Infinity, default: usual } = fragmentOf(field, situation.ticket.layout.kind);
  return {
    step: 1,
    least: minimum,
    ...words,
    most: maximum,
    value: valueAt(situation, field) ?? (usual as number),
    patch: (value) => patchOf(situation, field, value),
  };
}
