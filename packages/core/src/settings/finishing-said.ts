import { FINISHINGS, type Finishing, type FinishingPlace } from './finishing-words';

const NUMBERS = ['no', 'a', 'two', 'three', 'four'] as const;

const NAMED: Partial<Record<Finishing, string>> = {
  'saddle-stitch': 'staples in the fold',
  'edge-stitch': 'staples along an edge',
  punch: 'holes',
  fold: 'a fold',
  'fold-half': 'a fold in the middle',
  'fold-letter': 'folds in three, like a letter',
  'fold-z': 'folds in three, like a Z',
  'jog-offset': 'an offset from the set before',
};

/** "the top left corner", "the left edge". */
const sayPlace = (at: FinishingPlace): string => `the ${at.replace('-', ' ')} ${at.includes('-') ? 'corner' : 'edge'}`;

/** "a staple at the top left corner", "two holes at the left edge". */
export function sayFinishing(name: Finishing): string {
  const { kind, at, count } = FINISHINGS[name];
  const what = kind === 'holes' ? 'hole' : 'staple';
  const many = `${NUMBERS[count] ?? count} ${what}${count === 1 ? '' : 's'}`;
  if (name.startsWith('edge-stitch-')) return `staples along ${sayPlace(at as FinishingPlace)}`;
  return NAMED[name] ?? (at === null ? many : `${many} at ${sayPlace(at)}`);
}
