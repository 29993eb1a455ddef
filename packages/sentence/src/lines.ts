import { LINE_FIELDS, LINE_SIZE, type Ticket } from '@foglio/core';
import type { Aspect } from './aspect';
import type { Choice, Situation } from './situation';

/** Lines of text at the head and foot of every page. A person sets one at each edge; a set-up may have more. */

type Line = Ticket['lines'][number];
type Edge = 'top' | 'bottom';
type Place = 'left' | 'center' | 'right';

const PLACES: Readonly<Record<Place, string>> = { left: 'at the left', center: 'in the middle', right: 'at the right' };
const EDGES: Readonly<Record<Edge, string>> = { top: 'head', bottom: 'foot' };

/** What is offered, in words and as text. */
const OFFERED: readonly (readonly [label: string, text: string])[] = [
  ['The page’s number', '{page}'],
  ['The page’s number and how many there are', 'Page {page} of {pages}'],
  ['The page’s number in its own file', '{file page}'],
  ['The section', '{section}'],
  ['The file’s name', '{file}'],
  ['The day of printing', '{date}'],
];

const isAt = ({ at }: Line, edge: Edge): boolean => at.startsWith(edge);
const lineAt = ({ ticket }: Situation, edge: Edge): Line | null =>
  ticket.lines.find((line) => isAt(line, edge)) ?? null;
const placeOf = ({ at }: Line): Place => at.split('-')[1] as Place;

/** The ticket's lines with another at an edge; null: none there. */
function withLine({ ticket }: Situation, edge: Edge, line: Line | null): Partial<Ticket> {
  const others = ticket.lines.filter((one) => !isAt(one, edge));
  return { lines: line === null ? others : edge === 'top' ? [line, ...others] : [...others, line] };
}

/** "Page ‹page› of ‹pages›": what will be filled in is marked as such. */
const sayText = (text: string): string => text.replaceAll('{', '‹').replaceAll('}', '›');

function contentAspect(edge: Edge): Aspect {
  const changed = (situation: Situation, text: string): Partial<Ticket> => {
    const now = lineAt(situation, edge) ?? { at: `${edge}-center` as const, text, size: LINE_SIZE.default };
    return withLine(situation, edge, text.trim() === '' ? null : { ...now, text });
  };
  return {
    name: `${edge}-line`,
    title: `A line at the ${EDGES[edge]} of every page`,
    offer: `A line at the ${EDGES[edge]}: page numbers, file name, date`,
    lead: ', with ',
    say: (situation) => {
      const said = situation.ticket.lines.filter((line) => isAt(line, edge)).map(({ text }) => `“${sayText(text)}”`);
      return said.length === 0 ? null : `${said.join(' and ')} at the ${EDGES[edge]}`;
    },
    fields: [],
    plain: (situation) => withLine(situation, edge, null),
    choices: (situation): readonly Choice[] => [
      { label: 'None', patch: withLine(situation, edge, null) },
      ...OFFERED.map(([label, text]) => ({ label, patch: changed(situation, text) })),
    ],
    numbers: (situation) => {
      const line = lineAt(situation, edge);
      if (!line) return [];
      const patch = (size: number): Partial<Ticket> => withLine(situation, edge, { ...line, size });
      return [
        {
          label: 'Size',
          unit: 'pt',
          value: line.size,
          least: LINE_SIZE.minimum,
          most: LINE_SIZE.maximum,
          step: 1,
          patch,
        },
      ];
    },
    text: (situation) => ({
      label: `A text of your own, with ${LINE_FIELDS.map((field) => `{${field}}`).join(', ')}`,
      value: lineAt(situation, edge)?.text ?? '',
      patch: (value) => changed(situation, value),
    }),
  };
}

function placeAspect(edge: Edge): Aspect {
  return {
    name: `${edge}-line-place`,
    title: `Where the line at the ${EDGES[edge]} stands`,
    offer: `The line at the ${EDGES[edge]} at the left or right`,
    lead: ' ',
    fits: (situation) => lineAt(situation, edge) !== null,
    say: (situation) => {
      const line = lineAt(situation, edge);
      return !line || placeOf(line) === 'center' ? null : PLACES[placeOf(line)];
    },
    fields: [],
    plain: (situation) => {
      const line = lineAt(situation, edge);
      return withLine(situation, edge, line && { ...line, at: `${edge}-center` });
    },
    choices: (situation) => {
      const line = lineAt(situation, edge);
      return Object.entries(PLACES).map(([place, label]) => ({
        label: label[0]!.toUpperCase() + label.slice(1),
        patch: withLine(situation, edge, line && { ...line, at: `${edge}-${place as Place}` }),
      }));
    },
  };
}

export const headLine = contentAspect('top');
export const headLinePlace = placeAspect('top');
export const footLine = contentAspect('bottom');
export const footLinePlace = placeAspect('bottom');
