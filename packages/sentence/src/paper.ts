import {
  findSize,
  matchSize,
  mmToPoints,
  readSizeName,
  pointsToMm,
  saySize,
  trayName,
  type Printer,
  type Ticket,
  type Tray,
} from '@foglio/core';
import { sayType } from './paper-type';
import { sayTray, type Aspect } from './aspect';
import type { Situation } from './situation';
import { choicesOf, numberOf, patchOf } from './field';
import { isMadeToFit, tilesOf } from './tiles';

/** What paper, how large on it, and in what ink. */

/** Offered beside what is loaded (common practice). */
const COMMON_SIZES = ['a3', 'a4', 'a5', 'letter', 'legal'];

/** Sizes to choose from: what is loaded first, then what is common, then others there are; each once. */
export function paperSizes({ trays }: Pick<Printer, 'trays'>, others: readonly string[]): string[] {
  const common = COMMON_SIZES.flatMap((name) => findSize(name)?.name ?? []);
  return [...new Set([...trays.map(({ size }) => size), ...common, ...others])];
}

const sizesFor = ({ ticket, printer }: Situation): string[] =>
  paperSizes(printer, ticket.paper.size === 'as-page' ? [] : [ticket.paper.size]);

const inMm = (points: number): number => Math.round(pointsToMm(points) * 10) / 10;

/** A size by its measure: a known one where it is one. */
const customSize = (one: number, other: number): string => matchSize(mmToPoints(one), mmToPoints(other)).name;

export const paper: Aspect = {
  name: 'paper',
  title: 'What size of paper',
  offer: null,
  lead: ', on ',
  say: ({ ticket }) => (ticket.paper.size === 'as-page' ? 'each page’s own paper size' : saySize(ticket.paper.size)),
  fields: ['paper.size'],
  choices: (situation) =>
    choicesOf(situation, 'paper.size', [
      ['as-page', 'Each page on paper of its own size'],
      ...sizesFor(situation).map((size) => [size, `All on ${saySize(size)}`] as const),
    ]),
  numbers: (situation) => {
    const size =
      readSizeName(situation.ticket.paper.size) ?? readSizeName(sizesFor(situation)[0] ?? 'iso_a4_210x297mm');
    const [width, height] = [inMm(size?.width ?? 0), inMm(size?.height ?? 0)];
    const field = { unit: 'mm', least: 50, most: 1500, step: 1 };
    const measured = (one: number, other: number): Partial<Ticket> =>
      patchOf(situation, 'paper.size', customSize(one, other));
    return [
      { ...field, label: 'Another width', value: width, patch: (value) => measured(value, height) },
      { ...field, label: 'and height', value: height, patch: (value) => measured(width, value) },
    ];
  },
};

export const paperType: Aspect = {
  name: 'paper-type',
  title: 'What kind of paper',
  offer: 'A kind of paper: letterhead, card and so on',
  lead: ', on ',
  say: ({ ticket }) => (ticket.paper.type === null ? null : `${sayType(ticket.paper.type)} paper`),
  fields: ['paper.type'],
  choices: (situation) => {
    const loaded = situation.printer.trays.flatMap(({ type }) => (type === null ? [] : [type]));
    const chosen = situation.ticket.paper.type === null ? [] : [situation.ticket.paper.type];
    return choicesOf(situation, 'paper.type', [
      [null, 'Whatever kind lies in the tray'],
      ...[...new Set([...loaded, ...chosen])].map((type) => [type, `Only ${sayType(type)} paper`] as const),
    ]);
  },
};

export const orientation: Aspect = {
  name: 'orientation',
  isDrawn: true,
  title: 'Which way the sides stand',
  offer: 'All sides portrait, or all landscape',
  lead: ', ',
  say: ({ ticket }) => (ticket.paper.orientation === 'auto' ? null : `every side ${ticket.paper.orientation}`),
  fields: ['paper.orientation'],
  choices: (situation) =>
    choicesOf(situation, 'paper.orientation', [
      ['auto', 'As the pages ask for'],
      ['portrait', 'Every side portrait'],
      ['landscape', 'Every side landscape'],
    ]),
};

const SCALES: Readonly<Record<Exclude<Ticket['scale']['mode'], 'percent'>, { said: string; label: string }>> = {
  'auto-fit': {
    said: 'made smaller only where needed',
    label: 'At actual size, made smaller where the page is too large',
  },
  fit: { said: 'as large as fits', label: 'As large as fits' },
  fill: { said: 'filling its place', label: 'Filling its place, with the rest cut off' },
  none: { said: 'at actual size', label: 'At actual size, with what is too large cut off' },
  'fit-width': { said: 'as wide as its place', label: 'As wide as its place, with the rest cut off' },
};

/** A page over several sheets is not made to fit one of them. */
const SCALES_OF_TILES = {
  none: { ...SCALES.none, label: 'At actual size' },
  'fit-width': { ...SCALES['fit-width'], label: 'As wide as one sheet, over as many as are needed below each other' },
};

/** Of a page over several sheets: its size then decides how many they are. */
function bySize(situation: Situation): Partial<Ticket> {
  const layout = tilesOf(situation);
  return layout ? { layout: { ...layout, columns: null, rows: null } } : {};
}

export const scale: Aspect = {
  name: 'scale',
  isDrawn: true,
  title: 'How large the pages are printed',
  offer: null,
  lead: ', ',
  say: (situation) => {
    const { mode, percent } = situation.ticket.scale;
    if (isMadeToFit(situation)) return 'as large as these let it be';
    if (tilesOf(situation) && mode === 'auto-fit') return SCALES.none.said;
    return mode === 'percent' ? `at ${percent} %` : SCALES[mode].said;
  },
  fields: ['scale.mode'],
  choices: (situation) =>
    Object.entries(tilesOf(situation) ? SCALES_OF_TILES : SCALES).map(([mode, { label }]) => ({
      label,
      patch: { ...patchOf(situation, 'scale.mode', mode as Ticket['scale']['mode']), ...bySize(situation) },
    })),
  numbers: (situation) => [
    {
      ...numberOf(situation, 'scale.percent', { label: 'At a size of', unit: '%', least: 1 }),
      patch: (percent) => ({ scale: { mode: 'percent', percent }, ...bySize(situation) }),
    },
  ],
};

export const margin: Aspect = {
  name: 'margin',
  title: 'How much of the paper’s edge stays free',
  offer: 'A margin kept free',
  lead: ', ',
  say: ({ ticket }) => (ticket.margin === 0 ? null : `keeping ${ticket.margin} mm free`),
  fields: ['margin'],
  numbers: (situation) => [numberOf(situation, 'margin', { label: 'Margin', unit: 'mm' })],
};

export const bindingMargin: Aspect = {
  name: 'bindingMargin',
  title: 'How much of the edge by which the set is bound stays free',
  offer: 'A margin for binding',
  lead: ', ',
  say: ({ ticket }) => (ticket.bindingMargin === 0 ? null : `leaving ${ticket.bindingMargin} mm for the binding`),
  fields: ['bindingMargin'],
  numbers: (situation) => [numberOf(situation, 'bindingMargin', { label: 'Binding margin', unit: 'mm' })],
};

export const color: Aspect = {
  name: 'color',
  title: 'Colour or grey',
  offer: null,
  lead: ', in ',
  say: ({ ticket, printer }) =>
    ticket.color === 'monochrome' ? 'grey' : printer.color ? 'colour' : 'this printer’s grey',
  fields: ['color'],
  choices: (situation) =>
    choicesOf(situation, 'color', [
      ['auto', 'Colour where a page holds any'],
      ['monochrome', 'Everything in grey'],
    ]),
};

export const quality: Aspect = {
  name: 'quality',
  title: 'How finely it is printed',
  offer: 'Draft or high quality',
  lead: ', ',
  say: ({ ticket }) =>
    ticket.quality === 'normal' ? null : ticket.quality === 'draft' ? 'as a draft' : 'in high quality',
  fields: ['quality'],
  choices: (situation) =>
    choicesOf(situation, 'quality', [
      ['normal', 'Normal'],
      ['draft', 'Draft: less ink'],
      ['high', 'High quality'],
    ]),
};

/** A tray with its paper, since nobody knows by its number what lies in it: "Tray 2, A4 letterhead, 220 sheets". */
export function sayTrayHolding(tray: Tray): string {
  const paper = tray.type === null ? saySize(tray.size) : `${saySize(tray.size)} ${sayType(tray.type)}`;
  return `${trayName(tray)}, ${paper}${tray.loaded === null ? '' : `, ${tray.loaded} sheets`}`;
}

/** The trays of the printer as they are loaded: the id and what is said of it. */
export const trayLabels = ({ printer }: Pick<Situation, 'printer'>): (readonly [id: string, label: string])[] =>
  printer.trays.map((tray) => [tray.id, sayTrayHolding(tray)]);

export const tray: Aspect = {
  name: 'tray',
  title: 'Which tray, for all that no route names',
  offer: null,
  lead: ', from ',
  say: ({ ticket, printer }) => sayTray(ticket.tray, printer),
  fields: ['tray'],
  choices: (situation) =>
    choicesOf(situation, 'tray', [['auto', 'Whichever tray holds its paper'], ...trayLabels(situation)]),
};
