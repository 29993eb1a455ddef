import type { Route, Ticket } from '@foglio/core';
import { preposition, sayUsual, type Aspect } from './aspect';
import type { Situation } from './situation';
import { DOCUMENT_ASPECTS, JOB_ASPECTS, TRAY } from './aspects';
import { chosenPages, sayChosen } from './page-words';
import { sayRoute } from './route-words';
import { sizeWords, type SizeWords } from './sizes';

export interface Phrase {
  readonly text: string;
  /** The name of the aspect it changes, "pages" or "routes"; null: words between the phrases. */
  readonly control: string | null;
  /** Which document or route, from 0, where the control is about one. */
  readonly index: number;
  /** Differs from the house set-up. */
  readonly strong: boolean;
}

/** More than that is told by number, so that the sentence stays within three lines of a screen 1280 pixels wide. */
const MOST_ROUTES = 3;
const MOST_DOCUMENTS = 3;
const MOST_LETTERS = 350;

/** Behind how large the pages are wanted it is said how large they come out. */
const AFTER_SCALE = JOB_ASPECTS.findIndex(({ name }) => name === 'scale') + 1;

/** What is told by number rather than one by one. */
interface Folds {
  readonly routes: boolean;
  readonly documents: boolean;
}

/**
 * The whole ticket as one English sentence or two; read aloud it is what will happen. Without
 * documents it is said of any file.
 */
export function sentence(situation: Situation): Phrase[] {
  const { ticket } = situation;
  const folds = { routes: ticket.routes.length > MOST_ROUTES, documents: ticket.documents.length > MOST_DOCUMENTS };
  const several = { routes: ticket.routes.length > 1, documents: ticket.documents.length > 1 };
  // Routes first: the documents are what the job is about.
  const ways: Folds[] = [folds, { ...folds, routes: folds.routes || several.routes }, several];
  const sizes = sizeWords(situation);
  // Said at every key that is typed, so the shorter ways are put into words only where they are needed.
  let said: Phrase[] = [];
  for (const way of ways) {
    said = assemble(situation, way, sizes);
    if (lettersOf(said) <= MOST_LETTERS) break;
  }
  return said;
}

const lettersOf = (phrases: readonly Phrase[]): number => phrases.reduce((sum, { text }) => sum + text.length, 0);

function assemble(situation: Situation, folds: Folds, sizes: SizeWords): Phrase[] {
  const { ticket, house } = situation;
  const said: Phrase[] = [
    plain('Print '),
    ...sayDocuments(situation, folds.documents),
    ...sayAll(JOB_ASPECTS.slice(0, AFTER_SCALE), situation),
    ...sayIn(sizes(-1)),
    ...sayAll(JOB_ASPECTS.slice(AFTER_SCALE), situation),
  ];
  if (ticket.routes.length === 0 && house.routes.length > 0) {
    said.push(plain(', '), phrase('routes', 'with no paper or settings of its own for any page', true));
  }
  if (ticket.routes.length === 0) return [...said, ...sayAll([TRAY], situation), plain('.')];
  said.push(plain('. '));
  if (folds.routes) {
    const count = ticket.routes.length;
    const strong = !ticket.routes.every((route) => isOfHouse(route, house));
    said.push(phrase('routes', `${count} routes`, strong), plain(' have paper or settings of their own'));
  } else {
    ticket.routes.forEach((route, index) => {
      if (index > 0) said.push(plain('; '));
      const text = sayRoute(route, situation);
      const capital = index === 0 ? text[0]?.toUpperCase() + text.slice(1) : text;
      said.push(phrase('routes', capital, !isOfHouse(route, house), index), ...sayIn(sizes(index)));
    });
  }
  const from = sayAll([TRAY], situation).filter(({ control }) => control !== null);
  return [...said, plain('; all else comes from '), ...from, plain('.')];
}

/** Whether the house set-up has such a route, of whichever document. */
function isOfHouse({ document: _, ...route }: Route, house: Ticket): boolean {
  return house.routes.some(({ document: __, ...other }) => JSON.stringify(other) === JSON.stringify(route));
}

const plain = (text: string): Phrase => ({ text, control: null, index: 0, strong: false });

const phrase = (control: string, text: string, strong: boolean, index = 0): Phrase => ({
  text,
  control,
  index,
  strong,
});

const sayIn = (sizes: string | null): Phrase[] => (sizes === null ? [] : [plain(` (${sizes})`)]);

/** What these aspects have to say, each after its own words. What the house set-up has and the job has not is denied. */
const sayAll = (aspects: readonly Aspect[], situation: Situation): Phrase[] =>
  aspects.flatMap((aspect) => {
    const text = aspect.say(situation);
    if (text === null) {
      const denied = (aspect.fits?.(situation) ?? true) ? sayUsual(aspect, situation) : null;
      return denied === null
        ? []
        : [plain(', '), phrase(aspect.name, `not ${preposition(aspect)}${denied}`, true, situation.at)];
    }
    return [plain(aspect.lead), phrase(aspect.name, text, text !== sayUsual(aspect, situation), situation.at)];
  });

const pagesOf = ({ documents }: Ticket): string => documents[0]?.pages ?? 'all';
const isUsualPages = ({ documents }: Ticket, house: Ticket): boolean =>
  documents.every(({ pages }) => pages === pagesOf(house));

function sayDocuments(situation: Situation, fold: boolean): Phrase[] {
  const { ticket, documents, house } = situation;
  if (fold) {
    const pages = ticket.documents.map((one, index) => chosenPages(one, documents[index]));
    const count = pages.reduce((sum, one) => sum + (one?.length ?? 0), 0);
    const all = ticket.documents.every(({ pages: text }) => text === 'all');
    const text = `${all ? 'all ' : ''}${count} pages`;
    return [phrase('pages', text, !isUsualPages(ticket, house)), plain(` of ${ticket.documents.length} documents`)];
  }
  return ticket.documents.flatMap((document, at) => [
    ...(at === 0 ? [] : [plain(at === ticket.documents.length - 1 ? ' and ' : ', ')]),
    phrase('pages', sayChosen(document, documents[at]), document.pages !== pagesOf(house), at),
    ...sayAll(DOCUMENT_ASPECTS, { ...situation, at }),
  ]);
}
