import { DOCUMENT_ASPECTS, JOB_ASPECTS, sayChosen, sayRoute, type Situation, TRAY } from '@foglio/sentence';

/** One thing that a set-up makes different: how it is said now, and how it would be. */
export interface Change {
  readonly what: string;
  readonly now: string;
  readonly then: string;
}

/** Where there is nothing to say of it. */
const NOTHING = '—';

/** What is different between two set-ups of the same files, in the words of the sentence and its order. */
export function changesBetween(now: Situation, then: Situation): Change[] {
  const said = (title: string, say: (situation: Situation) => string | null): Change[] => {
    const [before, after] = [say(now), say(then)];
    return before === after ? [] : [{ what: title, now: before ?? NOTHING, then: after ?? NOTHING }];
  };
  const ofDocuments = now.ticket.documents.flatMap((_, at) =>
    now.ticket.documents.length === then.ticket.documents.length
      ? [
          ...said('Which pages', ({ ticket, documents }) => sayChosen(ticket.documents[at]!, documents[at])),
          ...DOCUMENT_ASPECTS.flatMap(({ title, say }) => said(title, (one) => say({ ...one, at }))),
        ]
      : [],
  );
  return [
    ...ofDocuments,
    ...said('How often each file is printed', ({ ticket }) => ways(ticket.documents.length)),
    // What is always said, and not of the new set-up, means nothing there: a booklet has no one side.
    ...[...JOB_ASPECTS, TRAY].flatMap(({ title, offer, say }) =>
      offer === null && say(then) === null ? [] : said(title, say),
    ),
    ...said('Pages with paper or settings of their own', sayRoutes),
  ];
}

const ways = (count: number): string => (count === 1 ? 'once' : `${count} times`);

const sayRoutes = (situation: Situation): string | null => {
  const { routes } = situation.ticket;
  return routes.length === 0 ? null : routes.map((route) => sayRoute(route, situation)).join('; ');
};
