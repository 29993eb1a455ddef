import type { Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import { choicesOf, numberOf, patchOf } from './field';
import { isBehind } from './pieces';
import type { Choice, Situation } from './situation';

/** How many, in what order, on which sides. */

const folded = (ticket: Ticket): boolean => ticket.layout.kind === 'booklet';

/** What is folded is always on both sides, what is joined always on one. */
const decided = (ticket: Ticket): boolean => ticket.layout.kind !== 'grid';

const onBothSides = (situation: Situation): boolean => situation.ticket.sides === 'two-sided' || isBehind(situation);

export function sayBind(bind: Ticket['bind']): string {
  if (bind === 'top') return 'like a pad';
  return bind === 'right' ? 'like a book read from the right' : 'like a book';
}

export const copies: Aspect = {
  name: 'copies',
  title: 'How many copies',
  offer: null,
  lead: ', ',
  say: ({ ticket }) => (ticket.copies === 1 ? 'one copy' : `${ticket.copies} copies`),
  fields: ['copies'],
  numbers: (situation) => [numberOf(situation, 'copies', { label: 'Copies', unit: '' })],
};

export const sets: Aspect = {
  name: 'sets',
  title: 'In what order copies come out',
  offer: null,
  lead: ' as ',
  say: ({ ticket }) => {
    if (ticket.copies === 1) return null;
    return ticket.collate ? 'complete sets' : 'the same sheet again before the next';
  },
  fields: ['collate'],
  choices: (situation) =>
    choicesOf(situation, 'collate', [
      [true, 'Complete sets: the whole job, then the whole job again'],
      [false, 'The same sheet again: all copies of sheet 1, then of sheet 2'],
    ]),
};

export const proof: Aspect = {
  name: 'proof',
  title: 'One set first',
  offer: 'One set first, to look at',
  lead: ', ',
  fits: ({ ticket }) => ticket.copies > 1,
  say: ({ ticket }) => (ticket.proof && ticket.copies > 1 ? 'one of them first' : null),
  fields: ['proof'],
  choices: (situation) =>
    choicesOf(situation, 'proof', [
      [false, 'All copies at once'],
      [true, 'One set first; the others wait until you have looked at it'],
    ]),
};

export const sides: Aspect = {
  name: 'sides',
  title: 'One side or both',
  offer: null,
  lead: ', on ',
  say: (situation) => (decided(situation.ticket) ? null : onBothSides(situation) ? 'both sides' : 'one side'),
  fields: ['sides'],
  choices: (situation) => {
    const [both, one] = choicesOf(situation, 'sides', [
      ['two-sided', 'Both sides of the sheet'],
      ['one-sided', 'One side; backs stay blank'],
    ]) as [Choice, Choice];
    // Backs that lie behind their fronts are on the back whatever is said of sides.
    return isBehind(situation)
      ? [both, { ...one, patch: { ...one.patch, ...patchOf(situation, 'layout.backs', 'next') } }]
      : [both, one];
  },
};

export const bind: Aspect = {
  name: 'bind',
  title: 'How the sheets turn over',
  offer: null,
  lead: ' turning ',
  say: (situation) => (onBothSides(situation) && !decided(situation.ticket) ? sayBind(situation.ticket.bind) : null),
  fields: ['bind'],
  choices: (situation) =>
    choicesOf(situation, 'bind', [
      ['left', 'Like a book, held on the left'],
      ['right', 'Like a book read from the right, held on the right'],
      ['top', 'Like a pad, held at the top'],
    ]),
};

export const faces: Aspect = {
  name: 'faces',
  title: 'Fronts and backs, or one of them',
  offer: 'Fronts or backs alone',
  lead: ', ',
  say: ({ ticket }) =>
    ticket.faces === 'both'
      ? null
      : ticket.faces === 'fronts'
        ? 'the fronts alone'
        : 'the backs alone, onto printed fronts',
  fields: ['faces'],
  choices: (situation) =>
    choicesOf(situation, 'faces', [
      ['both', 'Both, as the printer does them'],
      ['fronts', 'The fronts alone'],
      ['backs', 'The backs alone, onto sheets whose fronts are printed'],
    ]),
};

/** Of a booklet, which is always two-sided: from which side it is read. */
export const bookletBind: Aspect = {
  name: 'booklet-bind',
  title: 'From which side the booklet is read',
  offer: 'A booklet read from the right',
  lead: ', ',
  fits: ({ ticket }) => folded(ticket),
  say: ({ ticket }) => (folded(ticket) && ticket.bind === 'right' ? 'read from the right' : null),
  fields: ['bind'],
  choices: (situation) =>
    choicesOf(situation, 'bind', [
      ['left', 'From the left'],
      ['right', 'From the right'],
    ]),
};
