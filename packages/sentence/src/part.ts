import type { Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import { choicesOf, patchOf } from './field';
import type { Choice, NumberField, Situation } from './situation';

/** What of each page is printed. */

type Part = Ticket['documents'][number]['part'];
type Rectangle = Exclude<Part, string>;

const POINTS_PER_MM = 72 / 25.4;

/** "in part (120 × 80 mm)", "with white margins trimmed" */
export function sayPart(part: Part): string | null {
  if (part === 'whole') return null;
  return part === 'content' ? 'with white margins trimmed' : `in part (${part.width} × ${part.height} mm)`;
}

/** Where nothing is chosen yet: all of the document's first page, in whole millimetres. */
function wholeOfFirst({ documents, at, ticket }: Situation): Rectangle {
  const { width = 595.276, height = 841.89 } = documents[at]?.pages[0] ?? {};
  const sideways = (ticket.documents[at]?.rotate ?? 0) % 180 !== 0;
  const [across, down] = (sideways ? [height, width] : [width, height]).map((points) =>
    Math.round(points / POINTS_PER_MM),
  ) as [number, number];
  return { left: 0, top: 0, width: across, height: down };
}

const LENGTHS: readonly (readonly [keyof Rectangle, string])[] = [
  ['left', 'From the left'],
  ['top', 'From the top'],
  ['width', 'Width'],
  ['height', 'Height'],
];

/** The rectangle that is chosen, or that one begins with, and its numbers where one is chosen. */
export function rectanglesOf(now: Part | undefined, situation: Situation) {
  const isChosen = typeof now === 'object';
  const rectangle = isChosen ? now : wholeOfFirst(situation);
  const numbers = isChosen ? LENGTHS : [];
  return {
    rectangle,
    numbers: numbers.map(([name, label]) => ({
      label,
      unit: 'mm',
      value: rectangle[name],
      least: name === 'left' || name === 'top' ? 0 : 1,
      most: 10_000,
      step: 1,
      change: (value: number): Rectangle => ({ ...rectangle, [name]: value }),
    })),
  };
}

const partNow = ({ ticket, at }: Situation): Part => ticket.documents[at]?.part ?? 'whole';

export const part: Aspect = {
  name: 'part',
  isDrawn: true,
  title: 'What of each page is printed',
  offer: 'A part of each page, or its white margins trimmed',
  lead: ' ',
  say: (situation) => sayPart(partNow(situation)),
  fields: ['documents.part'],
  choices: (situation) => {
    const now = partNow(situation);
    const { rectangle } = rectanglesOf(now, situation);
    const { scale } = situation.ticket;
    // At actual size nothing would grow, which is what margins are trimmed for.
    const grown = now !== 'content' && scale.mode === 'auto-fit' ? { scale: { ...scale, mode: 'fit' as const } } : {};
    const [whole, content, some] = choicesOf(situation, 'documents.part', [
      ['whole', 'All of each page'],
      ['content', 'Its content, as large as fits: white margins trimmed, the same on all its pages'],
      [rectangle, 'A part of it, the same on all its pages'],
    ]) as [Choice, Choice, Choice];
    return [whole, { ...content, patch: { ...content.patch, ...grown } }, some];
  },
  numbers: (situation) =>
    rectanglesOf(partNow(situation), situation).numbers.map(({ change, ...field }): NumberField => ({
      ...field,
      patch: (value) => patchOf(situation, 'documents.part', change(value)),
    })),
};
