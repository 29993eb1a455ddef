import { FINISHINGS, sayFinishing, type Finishing, type FinishingKind, type Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import { choicesOf } from './field';
import type { Situation } from './situation';

const isOf = (kinds: readonly FinishingKind[]) => (name: Finishing) => kinds.includes(FINISHINGS[name].kind);

/** One thing that is done to sets: of its kinds there is one at a time. */
function finishing(
  aspect: Pick<Aspect, 'name' | 'title' | 'offer' | 'lead'>,
  kinds: readonly FinishingKind[],
  none: string,
): Aspect {
  const isOne = isOf(kinds);
  const chosen = ({ ticket }: Situation): Finishing | null => ticket.finishings.find(isOne) ?? null;
  const patch = ({ ticket }: Situation, name: Finishing | null): Partial<Ticket> => {
    const { finishings } = ticket;
    if (name === null) return { finishings: finishings.filter((one) => !isOne(one)) };
    const isThere = finishings.some(isOne);
    return { finishings: isThere ? finishings.map((one) => (isOne(one) ? name : one)) : [...finishings, name] };
  };
  return {
    ...aspect,
    fits: (situation) => situation.printer.finishings.some(isOne) || chosen(situation) !== null,
    fields: [],
    plain: (situation) => patch(situation, null),
    say: (situation) => {
      const name = chosen(situation);
      return name && sayFinishing(name);
    },
    choices: (situation) => {
      const now = chosen(situation);
      const names = situation.printer.finishings.filter(isOne);
      if (now && !names.includes(now)) names.push(now);
      const capital = (text: string): string => text[0]!.toUpperCase() + text.slice(1);
      return [
        { label: none, patch: patch(situation, null) },
        ...names.map((name) => ({ label: capital(sayFinishing(name)), patch: patch(situation, name) })),
      ];
    },
  };
}

export const staples = finishing(
  { name: 'staples', title: 'Staples', offer: 'Staples', lead: ', with ' },
  ['staple', 'stitch'],
  'Not stapled',
);
export const holes = finishing(
  { name: 'holes', title: 'Holes', offer: 'Holes for a file', lead: ', with ' },
  ['holes'],
  'No holes',
);
export const fold = finishing(
  { name: 'fold', title: 'Folds', offer: 'Folded sheets', lead: ', with ' },
  ['fold'],
  'Not folded',
);
export const offset = finishing(
  { name: 'offset', title: 'Sets laid apart', offer: 'Each set a little apart from the one before', lead: ', with ' },
  ['offset'],
  'Sets straight on each other',
);

const EACH = { set: 'each set', document: 'each document', section: 'each section' } as const;

export const finishEach: Aspect = {
  name: 'finish-each',
  title: 'What is stapled or folded by itself',
  offer: 'Each document or section stapled by itself',
  lead: ', ',
  fits: ({ ticket }) => ticket.finishings.some((name) => FINISHINGS[name].kind !== 'holes'),
  fields: ['finishEach'],
  say: ({ ticket }) =>
    ticket.finishEach === 'set' || ticket.finishings.length === 0 ? null : `${EACH[ticket.finishEach]} by itself`,
  choices: (situation) =>
    choicesOf(situation, 'finishEach', [
      ['set', 'Each set'],
      ['document', 'Each document'],
      ['section', 'Each section of a document'],
    ]),
};
