import { bookletDefaults, gridDefaults, type Ticket } from '@foglio/core';
import {
  bookletOf,
  cellsOf,
  gridOf,
  sayTray,
  withBooklet,
  withGrid,
  type Aspect,
  type GridLayout,
  type Situation,
} from './aspect';

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

export const perSide: Aspect = {
  name: 'per-side',
  title: 'How many pages on a side',
  offer: null,
  lead: ', ',
  say: (situation) => {
    if (isBooklet(situation)) return 'folded as a booklet';
    const cells = cellsOf(situation);
    return cells === 1 ? '1 page a side' : `${cells} pages a side`;
  },
  plain: (situation) => gridOfPages(situation, 1),
  choices: (situation) => [
    ...COUNTS.map((count) => ({
      label: count === 1 ? '1 page a side' : `${count} pages a side`,
      patch: gridOfPages(situation, count),
    })),
    {
      label: 'A booklet: two pages a side, folded in the middle',
      patch: { layout: bookletOf(situation) ?? bookletDefaults },
    },
  ],
};

export const grid: Aspect = {
  name: 'grid',
  title: 'Columns and rows of your own',
  offer: 'Columns and rows of your own',
  lead: ' in ',
  fits: isGrid,
  say: (situation) => {
    const { columns, rows } = gridOf(situation) ?? gridDefaults;
    if (columns === null || rows === null) return null;
    return `${columns === 1 ? '1 column' : `${columns} columns`} and ${rows === 1 ? '1 row' : `${rows} rows`}`;
  },
  plain: (situation) => withGrid(situation, { columns: null, rows: null }),
  numbers: (situation) => {
    const layout = gridOf(situation) ?? gridDefaults;
    const [columns, rows] = [layout.columns ?? 1, layout.rows ?? 1];
    const field = { unit: '', least: 1, most: 8, step: 1 };
    return [
      { ...field, label: 'Columns', value: columns, patch: (value) => withGrid(situation, { columns: value, rows }) },
      { ...field, label: 'Rows', value: rows, patch: (value) => withGrid(situation, { columns, rows: value }) },
    ];
  },
};

export const repeat: Aspect = {
  name: 'repeat',
  title: 'What fills a side',
  offer: 'One page filling each side',
  lead: ', ',
  fits: severalCells,
  say: (situation) =>
    gridOf(situation)?.repeat === 'fill-side' && severalCells(situation) ? 'each side filled with one page' : null,
  plain: (situation) => withGrid(situation, { repeat: 'none' }),
  choices: (situation) => [
    { label: 'Each place the next page', patch: withGrid(situation, { repeat: 'none' }) },
    { label: 'Each side filled with one page, again and again', patch: withGrid(situation, { repeat: 'fill-side' }) },
  ],
};

export const flow: Aspect = {
  name: 'flow',
  title: 'Which way the pages run on a side',
  offer: 'Which way the pages run on a side',
  lead: ', running ',
  fits: severalCells,
  say: (situation) => {
    const layout = gridOf(situation);
    return layout && severalCells(situation) && layout.flow !== gridDefaults.flow ? FLOWS[layout.flow] : null;
  },
  plain: (situation) => withGrid(situation, { flow: gridDefaults.flow }),
  choices: (situation) =>
    Object.entries(FLOWS).map(([value, label]) => ({
      label: label[0]?.toUpperCase() + label.slice(1),
      patch: withGrid(situation, { flow: value as GridLayout['flow'] }),
    })),
};

export const turn: Aspect = {
  name: 'turn',
  title: 'Which way pages stand in their places',
  offer: 'Pages turned where that makes them larger',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.turn === 'best' ? 'turned where that is larger' : null),
  plain: (situation) => withGrid(situation, { turn: 'upright' }),
  choices: (situation) => [
    { label: 'Always upright', patch: withGrid(situation, { turn: 'upright' }) },
    { label: 'A quarter turn where the page is larger then', patch: withGrid(situation, { turn: 'best' }) },
  ],
};

export const gutter: Aspect = {
  name: 'gutter',
  title: 'Room between the pages of a side',
  offer: 'Room between the pages of a side',
  lead: ', ',
  fits: severalCells,
  say: (situation) => {
    const wide = gridOf(situation)?.gutter ?? 0;
    return wide > 0 && severalCells(situation) ? `${wide} mm apart` : null;
  },
  plain: (situation) => withGrid(situation, { gutter: 0 }),
  numbers: (situation) => [
    {
      label: 'Gutter',
      unit: 'mm',
      value: gridOf(situation)?.gutter ?? 0,
      least: 0,
      most: 100,
      step: 1,
      patch: (value) => withGrid(situation, { gutter: value }),
    },
  ],
};

export const frame: Aspect = {
  name: 'frame',
  title: 'A line round each page',
  offer: 'A line round each page',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.frame ? 'framed' : null),
  plain: (situation) => withGrid(situation, { frame: false }),
  choices: (situation) => [
    { label: 'No line', patch: withGrid(situation, { frame: false }) },
    { label: 'A thin line round each page', patch: withGrid(situation, { frame: true }) },
  ],
};

export const cutMarks: Aspect = {
  name: 'cut-marks',
  title: 'Marks to cut by',
  offer: 'Cut marks',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (gridOf(situation)?.marks === 'cut' ? 'with cut marks' : null),
  plain: (situation) => withGrid(situation, { marks: 'none' }),
  choices: (situation) => [
    { label: 'No marks', patch: withGrid(situation, { marks: 'none' }) },
    { label: 'Cut marks at the corners of each page', patch: withGrid(situation, { marks: 'cut' }) },
  ],
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
  plain: (situation) => withBooklet(situation, { sheetsPerSignature: 0 }),
  numbers: (situation) => [
    {
      label: 'Sheets a signature, 0 for all in one',
      unit: '',
      value: bookletOf(situation)?.sheetsPerSignature ?? 0,
      least: 0,
      most: 1000,
      step: 1,
      patch: (value) => withBooklet(situation, { sheetsPerSignature: value }),
    },
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
  plain: (situation) => withBooklet(situation, { creep: 0 }),
  numbers: (situation) => [
    {
      label: 'Creep a sheet',
      unit: 'mm',
      value: bookletOf(situation)?.creep ?? 0,
      least: 0,
      most: 5,
      step: 0.1,
      patch: (value) => withBooklet(situation, { creep: value }),
    },
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
  plain: (situation) => withBooklet(situation, { cover: null }),
  choices: (situation) => [
    { label: 'The paper of the rest', patch: withBooklet(situation, { cover: null }) },
    ...situation.printer.trays.map(({ id }) => ({
      label: sayTray(id, situation.printer),
      patch: withBooklet(situation, { cover: id }),
    })),
  ],
};

export const foldMarks: Aspect = {
  name: 'fold-marks',
  title: 'Marks to fold by',
  offer: 'Fold marks',
  lead: ', ',
  fits: isBooklet,
  say: (situation) => (bookletOf(situation)?.marks === 'fold' ? 'with fold marks' : null),
  plain: (situation) => withBooklet(situation, { marks: 'none' }),
  choices: (situation) => [
    { label: 'No marks', patch: withBooklet(situation, { marks: 'none' }) },
    { label: 'A mark at both ends of the fold', patch: withBooklet(situation, { marks: 'fold' }) },
  ],
};
