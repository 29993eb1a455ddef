import { fragmentOf, type Ticket } from '@foglio/core';
import { cellsOf, gridOf, type Aspect } from './aspect';
import { choicesOf } from './field';
import { chosenPages } from './page-words';
import type { Situation } from './situation';

/** What is cut out of the sheets: how many pieces, what lies behind each, in which order they are piled. */

const isGrid = (situation: Situation): boolean => gridOf(situation) !== null;
const severalCells = (situation: Situation): boolean => cellsOf(situation) > 1;

/** Whether each page has its back behind it, so that both sides are printed whatever the ticket says of sides. */
export const isBehind = (situation: Situation): boolean => gridOf(situation)?.backs === 'behind';

/** How many pieces all pages are, each once. */
function onceEach(situation: Situation): number {
  const { ticket, documents } = situation;
  const pages = ticket.documents.reduce((sum, one, at) => sum + (chosenPages(one, documents[at])?.length ?? 0), 0);
  return Math.max(1, isBehind(situation) ? Math.ceil(pages / 2) : pages);
}

export const pieces: Aspect = {
  name: 'pieces',
  title: 'How many pieces: flyers, cards, tickets, labels',
  offer: 'So many pieces: flyers, cards, tickets, labels',
  lead: ', ',
  fits: isGrid,
  say: (situation) => {
    const wanted = situation.ticket.pieces;
    if (!wanted || !isGrid(situation)) return null;
    const count = wanted.count === 1 ? '1 piece' : `${wanted.count} pieces`;
    return wanted.fill ? `${count} and as many more as fill the last sheet` : count;
  },
  fields: ['pieces'],
  choices: (situation) => {
    const count = situation.ticket.pieces?.count ?? onceEach(situation);
    return choicesOf(situation, 'pieces', [
      [null, 'Each page once'],
      [{ count, fill: false }, `${count} pieces, the pages again and again; the rest of the last sheet stays empty`],
      [{ count, fill: true }, `${count} pieces, and more of them until the last sheet is full`],
    ]);
  },
  numbers: (situation) => {
    const wanted = situation.ticket.pieces;
    const { minimum: least = 1, maximum: most = Infinity } = fragmentOf('pieces.count');
    const patch = (count: number): Partial<Ticket> => ({ pieces: { count, fill: wanted?.fill ?? false } });
    const value = wanted?.count ?? onceEach(situation);
    return [{ label: 'Pieces in a set, one for each guest or label', unit: '', value, least, most, step: 1, patch }];
  },
};

export const backs: Aspect = {
  name: 'backs',
  isDrawn: true,
  title: 'What lies behind each page',
  offer: 'Cards: each back behind its own front',
  lead: ', ',
  fits: isGrid,
  say: (situation) => (isBehind(situation) ? 'each back behind its own front' : null),
  fields: ['layout.backs'],
  choices: (situation) =>
    choicesOf(situation, 'layout.backs', [
      ['next', 'The pages that come next'],
      ['behind', 'Its own back: pages 1 and 2 are front and back of one piece, 3 and 4 of the next'],
    ]),
};

export const stack: Aspect = {
  name: 'stack',
  title: 'In which order the pieces are cut',
  offer: 'Cut and stack: piles that follow each other',
  lead: ', ',
  fits: severalCells,
  say: (situation) =>
    gridOf(situation)?.stack === 'cut' && severalCells(situation) ? 'in piles to cut and stack' : null,
  fields: ['layout.stack'],
  choices: (situation) =>
    choicesOf(situation, 'layout.stack', [
      ['sheets', 'Sheet by sheet: the next piece beside the one before it'],
      ['cut', 'In piles: cut the whole stack and lay the piles on each other, the first on top'],
    ]),
};
