import type { Ticket, WayToPrint } from '@foglio/core';
import { perSide, sides, type Situation, turn } from '@foglio/sentence';

const NAMES: Readonly<Record<WayToPrint['name'], string>> = {
  'as-set': 'As it is set now',
  'one-sided': 'On one side',
  'two-sided': 'On both sides',
  '2-a-side': '2 pages a side',
  '4-a-side': '4 pages a side',
  booklet: 'As a booklet',
  trimmed: 'With white margins trimmed',
  'in-grey': 'In grey',
  'in-color': 'In colour',
};

export const sayWay = ({ name }: Pick<WayToPrint, 'name'>): string => NAMES[name];

/** "on both sides, 4 pages a side, turned where that is larger" */
export function saySetUp(patch: Partial<Ticket>, situation: Situation): string {
  const changed = { ...situation, ticket: { ...situation.ticket, ...patch } };
  const side = sides.say(changed);
  const said = [side === null ? null : `on ${side}`, perSide.say(changed), turn.say(changed)];
  return said.filter((part) => part !== null).join(', ');
}
