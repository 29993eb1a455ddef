import { findSize, readSizeName, pointsToMm, saySize, type Ticket } from '@foglio/core';
import { sayType } from './paper-type';
import { sayTray, type Aspect, type Choice, type Situation } from './aspect';

/** What paper, how large on it, and in what ink. */

/** Offered beside what is loaded (common practice). */
const COMMON_SIZES = ['a3', 'a4', 'a5', 'letter', 'legal'];

const withPaper = ({ ticket }: Situation, change: Partial<Ticket['paper']>): Partial<Ticket> => ({
  paper: { ...ticket.paper, ...change },
});

/** What is loaded first, then what is common; each once. */
function sizesFor({ ticket, printer }: Situation): string[] {
  const common = COMMON_SIZES.flatMap((name) => findSize(name)?.name ?? []);
  const chosen = ticket.paper.size === 'as-page' ? [] : [ticket.paper.size];
  return [...new Set([...printer.trays.map(({ size }) => size), ...common, ...chosen])];
}

const inMm = (points: number): number => Math.round(pointsToMm(points) * 10) / 10;

/** A size by its measure, the short edge first as PWG 5101.1 wants it. */
function customSize(one: number, other: number): string {
  const [short, long] = one <= other ? [one, other] : [other, one];
  return `custom_page_${short}x${long}mm`;
}

export const paper: Aspect = {
  name: 'paper',
  title: 'What size of paper',
  offer: null,
  lead: ', on ',
  say: ({ ticket }) => (ticket.paper.size === 'as-page' ? 'each page’s own paper size' : saySize(ticket.paper.size)),
  plain: (situation) => withPaper(situation, { size: 'as-page' }),
  choices: (situation) => [
    { label: 'Each page on paper of its own size', patch: withPaper(situation, { size: 'as-page' }) },
    ...sizesFor(situation).map((size) => ({ label: `All on ${saySize(size)}`, patch: withPaper(situation, { size }) })),
  ],
  numbers: (situation) => {
    const size =
      readSizeName(situation.ticket.paper.size) ?? readSizeName(sizesFor(situation)[0] ?? 'iso_a4_210x297mm');
    const [width, height] = [inMm(size?.width ?? 0), inMm(size?.height ?? 0)];
    const field = { unit: 'mm', least: 50, most: 1500, step: 1 };
    const measured = (one: number, other: number): Partial<Ticket> =>
      withPaper(situation, { size: customSize(one, other) });
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
  plain: (situation) => withPaper(situation, { type: null }),
  choices: (situation) => {
    const loaded = situation.printer.trays.flatMap(({ type }) => (type === null ? [] : [type]));
    const chosen = situation.ticket.paper.type === null ? [] : [situation.ticket.paper.type];
    return [
      { label: 'Whatever kind lies in the tray', patch: withPaper(situation, { type: null }) },
      ...[...new Set([...loaded, ...chosen])].map((type) => ({
        label: `Only ${sayType(type)} paper`,
        patch: withPaper(situation, { type }),
      })),
    ];
  },
};

export const orientation: Aspect = {
  name: 'orientation',
  title: 'Which way the sides stand',
  offer: 'All sides portrait, or all landscape',
  lead: ', ',
  say: ({ ticket }) => (ticket.paper.orientation === 'auto' ? null : `every side ${ticket.paper.orientation}`),
  plain: (situation) => withPaper(situation, { orientation: 'auto' }),
  choices: (situation) => [
    { label: 'As the pages ask for', patch: withPaper(situation, { orientation: 'auto' }) },
    { label: 'Every side portrait', patch: withPaper(situation, { orientation: 'portrait' }) },
    { label: 'Every side landscape', patch: withPaper(situation, { orientation: 'landscape' }) },
  ],
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

export const scale: Aspect = {
  name: 'scale',
  title: 'How large the pages are printed',
  offer: null,
  lead: ', ',
  say: ({ ticket: { scale: wanted } }) =>
    wanted.mode === 'percent' ? `at ${wanted.percent} %` : SCALES[wanted.mode].said,
  plain: ({ ticket }) => ({ scale: { ...ticket.scale, mode: 'auto-fit' } }),
  choices: ({ ticket }) =>
    Object.entries(SCALES).map(([mode, { label }]) => ({
      label,
      patch: { scale: { ...ticket.scale, mode: mode as Ticket['scale']['mode'] } },
    })),
  numbers: ({ ticket }) => [
    {
      label: 'At a size of',
      unit: '%',
      value: ticket.scale.percent,
      least: 1,
      most: 1000,
      step: 1,
      patch: (percent) => ({ scale: { mode: 'percent', percent } }),
    },
  ],
};

export const margin: Aspect = {
  name: 'margin',
  title: 'How much of the paper’s edge stays free',
  offer: 'A margin kept free',
  lead: ', ',
  say: ({ ticket }) => (ticket.margin === 0 ? null : `keeping ${ticket.margin} mm free`),
  plain: () => ({ margin: 0 }),
  numbers: ({ ticket }) => [
    {
      label: 'Margin',
      unit: 'mm',
      value: ticket.margin,
      least: 0,
      most: 100,
      step: 1,
      patch: (value) => ({ margin: value }),
    },
  ],
};

export const color: Aspect = {
  name: 'color',
  title: 'Colour or grey',
  offer: null,
  lead: ', in ',
  say: ({ ticket, printer }) =>
    ticket.color === 'monochrome' ? 'grey' : printer.color ? 'colour' : 'this printer’s grey',
  plain: () => ({ color: 'auto' }),
  choices: () => [
    { label: 'Colour where a page holds any', patch: { color: 'auto' } },
    { label: 'Everything in grey', patch: { color: 'monochrome' } },
  ],
};

export const quality: Aspect = {
  name: 'quality',
  title: 'How finely it is printed',
  offer: 'Draft or high quality',
  lead: ', ',
  say: ({ ticket }) =>
    ticket.quality === 'normal' ? null : ticket.quality === 'draft' ? 'as a draft' : 'in high quality',
  plain: () => ({ quality: 'normal' }),
  choices: () => [
    { label: 'Normal', patch: { quality: 'normal' } },
    { label: 'Draft: less ink', patch: { quality: 'draft' } },
    { label: 'High quality', patch: { quality: 'high' } },
  ],
};

/** The trays of the printer as they are loaded. */
export const trayChoices = ({ printer }: Situation, patch: (id: string) => Partial<Ticket>): Choice[] =>
  printer.trays.map((tray) => ({
    label: `${sayTray(tray.id, printer)}, ${saySize(tray.size)}${tray.loaded === null ? '' : `, ${tray.loaded} sheets loaded`}`,
    patch: patch(tray.id),
  }));

export const tray: Aspect = {
  name: 'tray',
  title: 'Which tray, for all that no route names',
  offer: null,
  lead: ', from ',
  say: ({ ticket, printer }) => sayTray(ticket.tray, printer),
  plain: () => ({ tray: 'auto' }),
  choices: (situation) => [
    { label: 'Whichever tray holds its paper', patch: { tray: 'auto' } },
    ...trayChoices(situation, (id) => ({ tray: id })),
  ],
};
