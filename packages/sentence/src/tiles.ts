import { fragmentOf, tilesDefaults, type Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import { choicesOf, numberOf } from './field';
import type { Situation } from './situation';

/** One page over several sheets. */

type TilesLayout = Extract<Ticket['layout'], { kind: 'tiles' }>;

export const tilesOf = ({ ticket }: Pick<Situation, 'ticket'>): TilesLayout | null =>
  ticket.layout.kind === 'tiles' ? ticket.layout : null;

/** Where nothing else is said: a poster of four sheets. */
export const POSTER: TilesLayout = { ...tilesDefaults, columns: 2, rows: 2 };

/** Whether columns and rows decide how large the page comes out. */
export const isMadeToFit = (situation: Pick<Situation, 'ticket'>): boolean =>
  (tilesOf(situation)?.columns ?? null) !== null;

const isTiled = (situation: Situation): boolean => tilesOf(situation) !== null;

export const tileCount: Aspect = {
  name: 'tile-count',
  isDrawn: true,
  title: 'How many sheets make one page',
  offer: null,
  lead: ', ',
  fits: isTiled,
  say: (situation) => {
    const layout = tilesOf(situation);
    if (!layout) return null;
    const { columns, rows } = layout;
    return columns === null || rows === null ? 'as many as its size needs' : `${columns} across and ${rows} down`;
  },
  fields: ['layout.columns', 'layout.rows'],
  choices: (situation) => {
    const layout = tilesOf(situation) ?? POSTER;
    const [columns, rows] = [layout.columns ?? 2, layout.rows ?? 2];
    return [
      { label: 'As large as so many sheets let it be', patch: { layout: { ...layout, columns, rows } } },
      {
        label: 'As many sheets as its own size or a percentage needs',
        patch: { layout: { ...layout, columns: null, rows: null } },
      },
    ];
  },
  numbers: (situation) => {
    const layout = tilesOf(situation) ?? POSTER;
    const [columns, rows] = [layout.columns ?? 2, layout.rows ?? 2];
    const { minimum: least = 1, maximum: most = 1 } = fragmentOf('layout.columns', 'tiles');
    const field = { unit: '', least, most, step: 1 };
    return [
      {
        ...field,
        label: 'Sheets across',
        value: columns,
        patch: (value) => ({ layout: { ...layout, columns: value, rows } }),
      },
      {
        ...field,
        label: 'Sheets down',
        value: rows,
        patch: (value) => ({ layout: { ...layout, columns, rows: value } }),
      },
    ];
  },
};

export const overlap: Aspect = {
  name: 'overlap',
  isDrawn: true,
  title: 'How much neighbouring sheets have in common',
  offer: null,
  lead: ', ',
  fits: isTiled,
  say: (situation) => {
    const layout = tilesOf(situation);
    return layout && (layout.overlap === 0 ? 'edge to edge' : `overlapping by ${layout.overlap} mm`);
  },
  fields: ['layout.overlap'],
  numbers: (situation) => [numberOf(situation, 'layout.overlap', { label: 'Overlap', unit: 'mm' })],
};

export const joinMarks: Aspect = {
  name: 'join-marks',
  title: 'Marks to join by',
  offer: 'Marks to join the sheets by',
  lead: ', ',
  fits: isTiled,
  say: (situation) => (tilesOf(situation)?.marks === 'join' ? 'with marks to join by' : null),
  fields: ['layout.marks'],
  choices: (situation) =>
    choicesOf(situation, 'layout.marks', [
      ['none', 'No marks'],
      ['join', 'Short lines where the next sheet begins'],
    ]),
};
