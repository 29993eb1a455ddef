import { allLike, type Route, type Ticket } from '@foglio/core';
import { holds, preposition, type Aspect } from './aspect';
import { PAGE_ASPECTS } from './aspects';
import { rectanglesOf, sayPart } from './part';
import type { NumberField, Situation } from './situation';

/** One thing that a route may say of its pages beside their tray and their sides. */
export interface RoutePart {
  readonly name: string;
  /** Heads what may be chosen. */
  readonly title: string;
  /** In the list of "and also". */
  readonly offer: string;
  /** How the route says it, "in grey"; null where its pages are like the rest. */
  readonly said: string | null;
  readonly choices: readonly RouteChoice[];
  readonly numbers: readonly RouteNumber[];
  /** A line of text. */
  readonly text: {
    readonly label: string;
    readonly value: string;
    readonly change: (value: string) => RouteChange;
  } | null;
  /** The change that makes its pages like the rest. */
  readonly rest: RouteChange;
}

/** What is undefined is the ticket's again. */
export type RouteChange = { readonly [Part in keyof Route]?: Route[Part] | undefined };

export interface RouteChoice {
  readonly label: string;
  readonly change: RouteChange;
  readonly taken: boolean;
}

export type RouteNumber = Omit<NumberField, 'patch'> & { readonly change: (value: number) => RouteChange };

/** The parts of a route beside tray and sides, each of which an aspect of the sentence knows how to change. */
type OwnPart = Exclude<keyof Route & keyof Ticket, 'tray' | 'sides'>;
const PARTS = [...new Set(PAGE_ASPECTS.flatMap(({ fields }) => fields.map((field) => field.split('.')[0] as OwnPart)))];

/** All that a route may say beside tray and sides and that means something here, in the order of the sentence. */
export function routeParts(route: Route, situation: Situation): RoutePart[] {
  const { ticket } = situation;
  // The job as it would be were all of it printed like these pages.
  const alone: Situation = {
    ...situation,
    ticket: { ...allLike(ticket, route), tray: ticket.tray, sides: ticket.sides },
  };
  const ofTicket = PAGE_ASPECTS.filter(({ fits }) => fits?.(alone) ?? true).map((aspect) =>
    partOfAspect(aspect, route, situation, alone),
  );
  return [turned(route), printedPart(route, situation), ...ofTicket, apart(route), named(route)];
}

function partOfAspect(aspect: Aspect, route: Route, situation: Situation, alone: Situation): RoutePart {
  const { ticket } = situation;
  const [here, there] = [aspect.say(alone), aspect.say(situation)];
  const lead = preposition(aspect);
  const change = (patch: Partial<Ticket>): RouteChange => {
    const parts = PARTS.filter((part) => patch[part] !== undefined);
    // A part that is the job's again is no part of the route.
    return Object.fromEntries(
      parts.map((part) => [part, holds(ticket, { [part]: patch[part] }) ? undefined : patch[part]]),
    );
  };
  const choices = (aspect.choices?.(alone) ?? []).map(({ label, patch }) => ({
    label,
    change: change(patch),
    taken: holds(alone.ticket, patch),
  }));
  // Of the sizes of paper a route takes those that there are; its own numbers are the job's matter.
  const numbers = aspect.name === 'paper' ? [] : (aspect.numbers?.(alone) ?? []);
  return {
    name: aspect.name,
    title: aspect.title,
    offer: aspect.offer ?? aspect.title,
    said: here === there ? null : here === null ? `not ${lead}${there}` : `${lead}${here}`,
    choices,
    numbers: numbers.map(({ patch, ...field }) => ({ ...field, change: (value) => change(patch(value)) })),
    text: null,
    rest: restOf(aspect, route, situation, alone, change),
  };
}

/** The change of an aspect alone back to what the job has; the others of the same part of the route stay. */
function restOf(
  aspect: Aspect,
  route: Route,
  situation: Situation,
  alone: Situation,
  change: (patch: Partial<Ticket>) => RouteChange,
): RouteChange {
  const patch: Record<string, unknown> = {};
  for (const field of aspect.fields) {
    const [name, part] = field.split('.') as [OwnPart, string | undefined];
    if (route[name] === undefined) continue;
    const job = situation.ticket[name] as Readonly<Record<string, unknown>>;
    const own = (patch[name] ?? alone.ticket[name]) as Readonly<Record<string, unknown>>;
    const isOther = part === undefined || job['kind'] !== own['kind'];
    patch[name] = isOther ? job : { ...own, [part]: job[part] };
  }
  return change(patch);
}

const TURNS = [0, 90, 180, 270] as const;

const plain = (label: string, change: RouteChange, taken: boolean): RouteChoice => ({ label, change, taken });

const turned = ({ rotate }: Route): RoutePart => ({
  name: 'rotate',
  title: 'How these pages are turned',
  offer: 'Turned pages',
  said: rotate === undefined ? null : rotate === 0 ? 'not turned' : `turned ${rotate}°`,
  choices: TURNS.map((degrees) =>
    plain(degrees === 0 ? 'Not turned' : `${degrees}° clockwise`, { rotate: degrees }, rotate === degrees),
  ),
  numbers: [],
  text: null,
  rest: { rotate: undefined },
});

function printedPart(route: Route, situation: Situation): RoutePart {
  const { part } = route;
  const { rectangle, numbers } = rectanglesOf(part, { ...situation, at: (route.document ?? 1) - 1 });
  return {
    name: 'part',
    title: 'What of these pages is printed',
    offer: 'A part of these pages, or their white margins trimmed',
    said: part === undefined ? null : (sayPart(part) ?? 'whole'),
    choices: [
      plain('All of each page', { part: 'whole' }, part === 'whole'),
      plain('Their content: white margins trimmed alike', { part: 'content' }, part === 'content'),
      plain('A part of them, the same on all', { part: rectangle }, typeof part === 'object'),
    ],
    numbers: numbers.map(({ value, change, ...field }) => ({
      ...field,
      value,
      change: (typed: number) => ({ part: change(typed) }),
    })),
    text: null,
    rest: { part: undefined },
  };
}

const apart = ({ ownSheet }: Route): RoutePart => ({
  name: 'own-sheet',
  title: 'Whether these pages share sheets',
  offer: 'Each of these pages on a sheet of its own',
  said: ownSheet ? 'each on a sheet of its own' : null,
  choices: [
    plain('They may share sheets', { ownSheet: undefined }, !ownSheet),
    plain('Each on a sheet of its own', { ownSheet: true }, ownSheet === true),
  ],
  numbers: [],
  text: null,
  rest: { ownSheet: undefined },
});

const named = ({ name }: Route): RoutePart => ({
  name: 'name',
  title: 'What the route is called',
  offer: 'A name for the route',
  said: name ? `called “${name}”` : null,
  choices: [],
  numbers: [],
  text: { label: 'Name', value: name ?? '', change: (value) => ({ name: value || undefined }) },
  rest: { name: undefined },
});
