import type { Ticket } from '@foglio/core';
import type { Aspect } from './aspect';

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
  plain: () => ({ copies: 1 }),
  numbers: ({ ticket }) => [
    {
      label: 'Copies',
      unit: '',
      value: ticket.copies,
      least: 1,
      most: 100_000,
      step: 1,
      patch: (value) => ({ copies: value }),
    },
  ],
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
  plain: () => ({ collate: true }),
  choices: () => [
    { label: 'Complete sets: the whole job, then the whole job again', patch: { collate: true } },
    { label: 'The same sheet again: all copies of sheet 1, then of sheet 2', patch: { collate: false } },
  ],
};

export const sides: Aspect = {
  name: 'sides',
  title: 'One side or both',
  offer: null,
  lead: ', on ',
  say: ({ ticket }) => (folded(ticket) ? null : ticket.sides === 'two-sided' ? 'both sides' : 'one side'),
  plain: () => ({ sides: 'one-sided' }),
  choices: () => [
    { label: 'Both sides of the sheet', patch: { sides: 'two-sided' } },
    { label: 'One side; backs stay blank', patch: { sides: 'one-sided' } },
  ],
};

export const bind: Aspect = {
  name: 'bind',
  title: 'How the sheets turn over',
  offer: null,
  lead: ' turning ',
  say: ({ ticket }) => (ticket.sides === 'two-sided' && !folded(ticket) ? sayBind(ticket.bind) : null),
  plain: () => ({ bind: 'left' }),
  choices: () => [
    { label: 'Like a book, held on the left', patch: { bind: 'left' } },
    { label: 'Like a book read from the right, held on the right', patch: { bind: 'right' } },
    { label: 'Like a pad, held at the top', patch: { bind: 'top' } },
  ],
};

/** Of a booklet, which is always two-sided: from which side it is read. */
export const bookletBind: Aspect = {
  name: 'booklet-bind',
  title: 'From which side the booklet is read',
  offer: 'A booklet read from the right',
  lead: ', ',
  fits: ({ ticket }) => folded(ticket),
  say: ({ ticket }) => (folded(ticket) && ticket.bind === 'right' ? 'read from the right' : null),
  plain: () => ({ bind: 'left' }),
  choices: () => [
    { label: 'From the left', patch: { bind: 'left' } },
    { label: 'From the right', patch: { bind: 'right' } },
  ],
};
