import { bind } from './bind';
import { bindingMargin } from './binding-margin';
import { collate } from './collate';
import { color } from './color';
import { copies } from './copies';
import { delivery } from './delivery';
import { informationSheet } from './information-sheet';
import { faces } from './faces';
import { finishEach } from './finish-each';
import { finishings } from './finishings';
import { form } from './form';
import { inTurn } from './in-turn';
import { layout } from './layout';
import { lines } from './lines';
import { margin } from './margin';
import { newSheet } from './new-sheet';
import { numbering } from './numbering';
import { outputBin } from './output-bin';
import { ownSheet } from './own-sheet';
import { pages } from './pages';
import { paper } from './paper';
import { part } from './part';
import { pieces } from './pieces';
import { proof } from './proof';
import { quality } from './quality';
import { rotate } from './rotate';
import { scale } from './scale';
import type { Carrier, Setting } from './setting';
import { sides } from './sides';
import { slips } from './slips';
import { title } from './title';
import { tray } from './tray';

/** Every setting, by the name it has in a ticket, in the order in which tickets are written. */
export const SETTINGS = {
  title,
  pages,
  numbering,
  rotate,
  part,
  form,
  inTurn,
  pieces,
  copies,
  proof,
  collate,
  delivery,
  sides,
  faces,
  bind,
  layout,
  paper,
  scale,
  margin,
  bindingMargin,
  color,
  quality,
  newSheet,
  slips,
  finishings,
  finishEach,
  informationSheet,
  tray,
  outputBin,
  lines,
  ownSheet,
} as const satisfies Readonly<Record<string, Setting>>;

type Settings = typeof SETTINGS;
export type SettingName = keyof Settings;

/** The names of the settings that a carrier has. */
export type CarriedBy<C extends Carrier> = {
  [Name in SettingName]: C extends Settings[Name]['carriers'][number] ? Name : never;
}[SettingName];

/** What is asked of a fragment; JSON Schema has more. */
interface Fragment {
  readonly default?: unknown;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly properties?: Readonly<Record<string, Fragment>>;
  readonly oneOf?: readonly Fragment[];
}

const NAMES = Object.keys(SETTINGS) as SettingName[];

export const settingOf = (name: SettingName): Setting => SETTINGS[name];

/**
 * The schema fragment at a place in the ticket: "copies", "paper.size", "layout.gutter", "documents.rotate".
 *
 * @param kind of the layout, where two kinds have a part of that name
 */
export function fragmentOf(place: string, kind?: string): Fragment {
  const [name, part] = place.replace(/^documents\./, '').split('.') as [SettingName, string | undefined];
  const whole: Fragment = settingOf(name).schema;
  if (part === undefined) return whole;
  const all = whole.oneOf ?? [whole];
  const kinds = all.toSorted((one, other) => Number(isOf(other, kind)) - Number(isOf(one, kind)));
  return kinds.map(({ properties }) => properties?.[part]).find((one) => one !== undefined) ?? {};
}

const isOf = ({ properties }: Fragment, kind: string | undefined): boolean =>
  kind !== undefined && properties?.['kind']?.const === kind;

export function carriedBy<C extends Carrier>(carrier: C): CarriedBy<C>[] {
  return NAMES.filter((name): name is CarriedBy<C> => settingOf(name).carriers.includes(carrier));
}

/** The schema fragments of what a carrier has. */
export const schemasOf = <C extends Carrier>(carrier: C) =>
  Object.fromEntries(carriedBy(carrier).map((name) => [name, SETTINGS[name].schema])) as {
    readonly [Name in CarriedBy<C>]: Settings[Name]['schema'];
  };

type Knowing = { [Name in SettingName]: Settings[Name] extends { known: unknown } ? Name : never }[SettingName];

/** The fields of a printer's profile that tell of settings, each with its schema and how the printer is asked. */
export const KNOWN = NAMES.flatMap((name) => {
  const { known } = settingOf(name);
  return known ? [{ name, ...known }] : [];
});

export type KnownField = Settings[Knowing]['known']['field'];

export const profileSchemas = Object.fromEntries(KNOWN.map(({ field, schema }) => [field, schema])) as {
  readonly [Name in Knowing as Settings[Name]['known']['field']]: Settings[Name]['known']['schema'];
};

/** How a printer is told of a setting, for each that it is told of. */
export const TOLD = NAMES.flatMap((name) => {
  const { told } = settingOf(name);
  return told ? [{ name, ...told }] : [];
});

/**
 * Settings of which a printer is told for each sheet in one word, so that every sheet of a plan carries them. Not `sides`,
 * for which the plan says more than the ticket, and which has a field of its own.
 */
type OfSheet = {
  [Name in Exclude<CarriedBy<'route'>, 'sides'>]: Settings[Name] extends { told: { of: 'sheet'; syntax: 'keyword' } }
    ? Name
    : never;
}[Exclude<CarriedBy<'route'>, 'sides'>];

export const OF_SHEET = TOLD.flatMap(({ name, of, syntax, attribute, said = attribute }) =>
  of === 'sheet' && syntax === 'keyword' && name !== 'sides' ? [{ name: name as OfSheet, attribute, said }] : [],
);

/** The schemas of what a sheet carries of them: only what is not as usual. */
export const sheetSchemas = Object.fromEntries(OF_SHEET.map(({ name }) => [name, { type: 'string' }])) as {
  readonly [Name in OfSheet]: { readonly type: 'string' };
};

export type SheetSettings = { [Name in OfSheet]?: string };

/** What a sheet carries of these settings; null: nothing, as most do. */
export function sheetSettings(settings: object): SheetSettings | null {
  const own = OF_SHEET.flatMap(({ name }) => {
    const value = (settings as Readonly<Record<string, unknown>>)[name];
    return value === undefined || value === settingOf(name).schema.default ? [] : [[name, value]];
  });
  return own.length > 0 ? (Object.fromEntries(own) as SheetSettings) : null;
}
