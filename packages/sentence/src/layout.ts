import { bookletDefaults, fragmentOf, gridDefaults, type Ticket } from '@foglio/core';
import { bookletOf, cellsOf, gridOf, sayTray, type Aspect, type GridLayout } from './aspect';
import type { Choice, Situation } from './situation';
import { choicesOf, numberOf, patchOf } from './field';
import { POSTER, tilesOf } from './tiles';

/** What lies on a side. */

const COUNTS = [1, 2, 4, 6, 8, 9, 16] as const;

/** Presentation-direction-number-up (PWG 5100.3) in words. */
const FLOWS: Readonly<Record<GridLayout['flow'], string>> = {
  'toright-tobottom': 'across and then down',
  'toright-totop': 'across and then up',
  'toleft-tobottom': 'from right to left and then down',
  'toleft-totop': 'from right to left and then up',
  'tobottom-toright': 'down and then across',
  'tobottom-toleft': 'down and then to the left',
  'totop-toright': 'up and then across',
  'totop-toleft': 'up and then to the left',
};

/** So many pages a side, keeping what the ticket says of the grid otherwise. */
function gridOfPages(situation: Situation, pagesPerSide: GridLayout['pagesPerSide']): Partial<Ticket> {
  const base = gridOf(situation) ?? gridDefaults;
  return { layout: { ...base, pagesPerSide, columns: null, rows: null } };
}

const severalCells = (situation: Situation): boolean => cellsOf(situation) > 1;
const isGrid = (situation: Situation): boolean => gridOf(situation) !== null;
const isBooklet = (situation: Situation): boolean => bookletOf(situation) !== null;

/** One design in all places of a side, or the next page in each again. */
function repeating(situation: Situation): Choice[] {
  const layout = gridOf(situation);
  if (!layout || !severalCells(situation)) return [];
  return layout.repeat === 'none'
    ? [
        {
          label: `One page in all ${cellsOf(situation)} places of a side`,
          patch: { layout: { ...layout, repeat: 'fill-side' } },
        },
      ]
    : [{ label: 'The next page in each place of a side', patch: { layout: { ...layout, repeat: 'none' } } }];
}

export const perSide: Aspect = {
  name: 'per-side',
  isDrawn: true,
  title: 'How many pages on a side',
  offer: null,
  lead: ', ',
  say: (situation) => {
    if (isBooklet(situation)) return 'folded as a booklet';
    if (tilesOf(situation)) return 'each page over several sheets';
    const cells = cellsOf(situation);
    return cells === 1 ? '1 page a side' : `${cells} pages a side`;
  },
  fields: ['layout.pagesPerSide'],
  plain: (situation) => gridOfPages(situation, gridDefaults.pagesPerSide),
  choices: (situation) => [
    ...COUNTS.map((count) => ({
      label: count === 1 ? '1 page a side' : `${count} pages a side`,
      patch: gridOfPages(situation, count),
    })),
    ...repeating(situation),
    {
      label: 'A booklet: two pages a side, folded in the middle',
      patch: { layout: bookletOf(situation) ?? bookletDefaults },
    },
    {
      label: 'A poster: each page over several sheets, to be joined',
      patch: { layout: tilesOf(situation) ?? POSTER },
    },
  ],
};

export const grid: Aspect = {
  name: 'grid',
  isDrawn: true,
  title: 'Columns and rows of your own',
  offer: 'Columns and rows of your own',
  lead: ' in ',
  fits: isGrid,
  say: (situation) => {
    const { columns, rows } = gridOf(situation) ?? gridDefaults;
    if (columns === null || rows === null) return null;
    return `${columns === 1 ? '1 column' : `${columns} columns`} and ${rows === 1 ? '1 row' : `${rows} rows`}`;
  },
  fields: ['layout.columns', 'layout.rows'],
  numbers: (situation) => {
    const layout = gridOf(situation) ?? gridDefaults;
    const [columns, rows] = [layout.columns ?? 1, layout.rows ?? 1];
    const { minimum: least = 1, maximum: most = 1 } = fragmentOf('layout.columns');
    const field = { unit: '', least, most, step: 1 };
    const divided = (across: number, down: number): Partial<Ticket> => ({
      layout: { ...layout, columns: across, rows: down },
    });
    return [
      { ...field, label: 'Columns', value: columns, patch: (value) => divided(value, rows) },
      { ...field, label: 'Rows', value: rows, patch: (value) => divided(columns, value) },
    ];
  },
};

export const repeat: Aspect = {
  name: 'repeat',
  isDrawn: true,
  title: 'What fills a side',
  offer: 'One page filling each side',
  lead: ', ',
  fits: severalCells,
  say: (situation) =>
    gridOf(situation)?.repeat === 'fill-side' && severalCells(situation) ? 'each side filled with one page' : null,
  fields: ['layout.repeat'],
  choices: (situation) =>
    choicesOf(situation, 'layout.repeat', [
      ['none', 'Each place the next page'],
      ['fill-side', 'Each side filled with one page, again and again'],
    ]),
};

export const flow: Aspect = {
  name: 'flow',
  isDrawn: true,
  title: 'Which way the pages run on a side',
  offer: 'Which way the pages run on a side',
  lead: ', running ',
  fits: severalCells,
  say: (situation) => {
    const layout = gridOf(situation);
    return layout && severalCells(situation) && layout.flow !== gridDefaults.flow ? FLOWS[layout.flow] : null;
  },
  fields: ['layout.flow'],
  choices: (situation) =>
    Object.entries(FLOWS).map(([value, label]) => ({
      label: label[0]?.toUpperCase() + label.slice(1),
      patch: patchOf(situation, 'layout.flow', value as GridLayout['flow']),
    })),
};

export const turn: Aspect = {
  name: 'turn',
  isDrawn: true,
  title: 'Which way pages stand in their places',
  offer: 'Pages turned where that makes them larger',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.turn === 'best' ? 'turned where that is larger' : null),
  fields: ['layout.turn'],
  choices: (situation) =>
    choicesOf(situation, 'layout.turn', [
      ['upright', 'Always upright'],
      ['best', 'A quarter turn where the page is larger then'],
    ]),
};

export const gutter: Aspect = {
  name: 'gutter',
  isDrawn: true,
  title: 'Room between the pages of a side',
  offer: 'Room between the pages of a side',
  lead: ', ',
  fits: severalCells,
  say: (situation) => {
    const wide = gridOf(situation)?.gutter ?? 0;
    return wide > 0 && severalCells(situation) ? `${wide} mm apart` : null;
  },
  fields: ['layout.gutter'],
  numbers: (situation) => [numberOf(situation, 'layout.gutter', { label: 'Gutter', unit: 'mm' })],
};

export const frame: Aspect = {
  name: 'frame',
  isDrawn: true,
  title: 'A line round each page',
  offer: 'A line round each page',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.frame ? 'framed' : null),
  fields: ['layout.frame'],
  choices: (situation) =>
    choicesOf(situation, 'layout.frame', [
      [false, 'No line'],
      [true, 'A thin line round each page'],
    ]),
};

export const cutMarks: Aspect = {
  name: 'cut-marks',
  isDrawn: true,
  title: 'Marks to cut by',
  offer: 'Cut marks',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.marks === 'cut' ? 'with cut marks' : null),
  fields: ['layout.marks'],
  choices: (situation) =>
    choicesOf(situation, 'layout.marks', [
      ['none', 'No marks'],
      ['cut', 'Cut marks at the corners of each page'],
    ]),
};

export const signatures: Aspect = {
  name: 'signatures',
  title: 'How many sheets are folded together',
  offer: 'A booklet in several signatures',
  lead: ' in ',
  fits: isBooklet,
  say: (situation) => {
    const count = bookletOf(situation)?.sheetsPerSignature ?? 0;
    return count === 0 ? null : count === 1 ? 'single sheets' : `signatures of ${count} sheets`;
  },
  fields: ['layout.sheetsPerSignature'],
  numbers: (situation) => [
    numberOf(situation, 'layout.sheetsPerSignature', { label: 'Sheets a signature, 0 for all in one', unit: '' }),
  ],
};

export const creep: Aspect = {
  name: 'creep',
  title: 'How far inner pages move towards the fold',
  offer: 'Creep: inner pages moved towards the fold',
  lead: ', ',
  fits: isBooklet,
  say: (situation) => {
    const far = bookletOf(situation)?.creep ?? 0;
    return far === 0 ? null : `moved ${far} mm a sheet towards the fold`;
  },
  fields: ['layout.creep'],
  numbers: (situation) => [
    numberOf(situation, 'layout.creep', { label: 'Each sheet towards the fold by', unit: 'mm', step: 0.1 }),
  ],
};

export const cover: Aspect = {
  name: 'cover',
  title: 'The paper of the cover',
  offer: 'A cover from another tray',
  lead: ', ',
  fits: isBooklet,
  say: (situation) => {
    const tray = bookletOf(situation)?.cover ?? null;
    return tray === null ? null : `its cover from ${sayTray(tray, situation.printer)}`;
  },
  fields: ['layout.cover'],
  choices: (situation) =>
    choicesOf(situation, 'layout.cover', [
      [null, 'The paper of the rest'],
      ...situation.printer.trays.map(({ id }) => [id, sayTray(id, situation.printer)] as const),
    ]),
};

export const foldMarks: Aspect = {
  name: 'fold-marks',
  title: 'Marks to fold by',
  offer: 'Fold marks',
  lead: ', ',
  fits: isBooklet,
  say: (situation) => (bookletOf(situation)?.marks === 'fold' ? 'with fold marks' : null),
  fields: ['layout.marks'],
  choices: (situation) =>
    choicesOf(situation, 'layout.marks', [
      ['none', 'No marks'],
      ['fold', 'A mark at both ends of the fold'],
    ]),
};
