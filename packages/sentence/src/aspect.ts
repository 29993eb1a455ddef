import { findTray, trayName, type Printer, type Ticket } from '@foglio/core';
import { partsOf, plainPatch, type Field } from './field';
import type { Choice, NumberField, Situation } from './situation';

/**
 * One thing a person can set: how the sentence says it and what its popover offers. The sentence, the popovers, "and also"
 * and "leave out" are all worked out from these, so a new field of the ticket is one more aspect.
 */
export interface Aspect {
  readonly name: string;
  /** Heads the popover. */
  readonly title: string;
  /** In the list of "and also"; null for what the sentence always says. */
  readonly offer: string | null;
  /** The words before the phrase. */
  readonly lead: string;
  /** The phrase; null where nothing is to be said, since it is at its usual value or means nothing here. */
  readonly say: (situation: Situation) => string | null;
  /** What of the ticket it is about. At the defaults of these there is nothing to say of it, or the plainest thing. */
  readonly fields: readonly Field[];
  /** What "leave out" makes of the ticket, where that is not the defaults of the fields. */
  readonly plain?: (situation: Situation) => Partial<Ticket>;
  /** Whether its choices are best told by what the first sheet then looks like, and how large its pages come out. */
  readonly isDrawn?: true;
  /** Whether it means anything for this ticket; always, unless given. */
  readonly fits?: (situation: Situation) => boolean;
  readonly choices?: (situation: Situation) => readonly Choice[];
  readonly numbers?: (situation: Situation) => readonly NumberField[];
  /** A line of text. */
  readonly text?: (situation: Situation) => {
    readonly label: string;
    readonly value: string;
    readonly patch: (value: string) => Partial<Ticket>;
  };
}

type Worded = Pick<Aspect, 'say' | 'fields' | 'plain'>;

/** The change that leaves an aspect out. */
export const plainOf = (aspect: Pick<Aspect, 'fields' | 'plain'>, situation: Situation): Partial<Ticket> =>
  aspect.plain?.(situation) ?? plainPatch(situation, aspect.fields);

/** The fields of the ticket that an aspect is about, as the house set-up has them. */
function ofHouse(aspect: Worded, situation: Situation): Partial<Ticket> {
  const { ticket, house } = situation;
  const keys = aspect.plain ? Object.keys(aspect.plain(situation)) : partsOf(situation, aspect.fields);
  const patch: Record<string, unknown> = {};
  // Told one by one: this is asked at every aspect, with every key that is typed.
  for (const key of keys as (keyof Ticket)[]) patch[key] = key === 'title' ? ticket.title : house[key];
  if ('documents' in patch) {
    patch['documents'] = ticket.documents.map((one) => ({ ...one, ...house.documents[0], file: one.file }));
  }
  return patch;
}

/** How it is said of the house set-up. */
export const sayUsual = (aspect: Worded, situation: Situation): string | null =>
  aspect.say({ ...situation, ticket: { ...situation.ticket, ...ofHouse(aspect, situation) } });

/** Whether the ticket has the value of the house set-up: whether the same is said of both. */
export const isUsual = (aspect: Worded, situation: Situation): boolean =>
  aspect.say(situation) === sayUsual(aspect, situation);

/** The change back to the house set-up: to the plain values where these are the usual ones. */
export function usual(aspect: Worded, situation: Situation): Partial<Ticket> {
  const plain = plainOf(aspect, situation);
  const said = aspect.say({ ...situation, ticket: { ...situation.ticket, ...plain } });
  return said === sayUsual(aspect, situation) ? plain : ofHouse(aspect, situation);
}

/** Whether a ticket has all that a patch says. */
export const holds = (ticket: Ticket, patch: Partial<Ticket>): boolean =>
  (Object.keys(patch) as (keyof Ticket)[]).every((key) => JSON.stringify(ticket[key]) === JSON.stringify(patch[key]));

export type GridLayout = Extract<Ticket['layout'], { kind: 'grid' }>;
export type BookletLayout = Extract<Ticket['layout'], { kind: 'booklet' }>;

export const gridOf = ({ ticket }: Situation): GridLayout | null =>
  ticket.layout.kind === 'grid' ? ticket.layout : null;

export const bookletOf = ({ ticket }: Situation): BookletLayout | null =>
  ticket.layout.kind === 'booklet' ? ticket.layout : null;

/** How many cells a side of the grid has; 1 for a booklet, whose two halves are no grid. */
export function cellsOf(situation: Situation): number {
  const grid = gridOf(situation);
  if (!grid) return 1;
  return grid.columns !== null && grid.rows !== null ? grid.columns * grid.rows : grid.pagesPerSide;
}

/** What stands before the phrase where it does not follow another: "on ", "into ", often nothing. */
export const preposition = ({ lead }: Aspect): string => lead.replace(/^,? /, '');

export function sayTray(id: string, printer: Printer): string {
  if (id === 'auto') return 'whichever tray holds its paper';
  const tray = findTray(printer, id);
  return tray ? trayName(tray) : `a tray that is not in ${printer.name}`;
}
