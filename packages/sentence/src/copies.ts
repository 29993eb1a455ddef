import type { Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import { choicesOf, numberOf } from './field';

/** How many, in what order, on which sides. */

const folded = (ticket: Ticket): boolean => ticket.layout.kind === 'booklet';

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

export const sides: Aspect = {
  name: 'sides',
  title: 'One side or both',
  offer: null,
  lead: ', on ',
  say: ({ ticket }) => (folded(ticket) ? null : ticket.sides === 'two-sided' ? 'both sides' : 'one side'),
  fields: ['sides'],
  choices: (situation) =>
    choicesOf(situation, 'sides', [
      ['two-sided', 'Both sides of the sheet'],
      ['one-sided', 'One side; backs stay blank'],
    ]),
};

export const bind: Aspect = {
  name: 'bind',
  title: 'How the sheets turn over',
  offer: null,
  lead: ' turning ',
  say: ({ ticket }) => (ticket.sides === 'two-sided' && !folded(ticket) ? sayBind(ticket.bind) : null),
  fields: ['bind'],
  choices: (situation) =>
    choicesOf(situation, 'bind', [
      ['left', 'Like a book, held on the left'],
      ['right', 'Like a book read from the right, held on the right'],
      ['top', 'Like a pad, held at the top'],
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
