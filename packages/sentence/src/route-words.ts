import { allLike, listPages, type Route } from '@foglio/core';
import { preposition, sayTray } from './aspect';
import type { Situation } from './situation';
import { PAGE_ASPECTS } from './aspects';
import { sayPart } from './part';
import { LONGEST_PAGES, readPages, sayInAny } from './page-words';

/** "page 1 comes from Tray 2, on one side" */
export function sayRoute(route: Route, situation: Situation): string {
  const { subject, one } = subjectOf(route, situation);
  const from = route.tray ? [`${one ? 'comes' : 'come'} from ${sayTray(route.tray, situation.printer)}`] : [];
  const said = [...from, ...waysOf(route, situation, one)];
  if (from.length === 0) said[0] = `${one ? 'is' : 'are'} printed ${said[0]}`;
  return `${subject} ${said.join(', ')}`;
}

/** The pages in words, and whether it is a single one. A rule for several documents is told by its text. */
function subjectOf(route: Route, { ticket, documents }: Situation): { subject: string; one: boolean } {
  if (documents.length === 0)
    return { subject: sayInAny(route.pages), one: /^(last|\d+|\d+:(1|last))$/.test(route.pages) };
  const place = (route.document ?? 1) - 1;
  const document = ticket.documents[place] ?? { rotate: 0, numbering: 'position' };
  const pages = readPages(route.pages, documents[place], document, true);
  const ofEach = documents.length > 1 && route.document === undefined;
  if (ofEach && /^\d+$/.test(route.pages)) return { subject: `page ${route.pages} of each document`, one: true };
  if (pages === null || pages.length === 0 || ofEach) {
    return { subject: `pages “${route.pages}”${ofEach ? ' of each document' : ''}`, one: false };
  }
  const listed = listPages(pages);
  const of = documents.length > 1 ? ` of document ${route.document}` : '';
  return {
    subject: `${listed.length > LONGEST_PAGES ? `${pages.length} pages` : listed}${of}`,
    one: pages.length === 1,
  };
}

/** What is different for the pages of a route: all that would be said of the job, were it set up like them. */
function waysOf(route: Route, situation: Situation, one: boolean): string[] {
  // Tray and sides are told apart.
  const { tray, sides } = situation.ticket;
  const alone = { ...situation, ticket: { ...allLike(situation.ticket, route), tray, sides } };
  const said: string[] = [];
  if (route.sides) said.push(route.sides === 'one-sided' ? 'on one side' : 'on both sides');
  if (route.rotate !== undefined) said.push(route.rotate === 0 ? 'not turned' : `turned ${route.rotate}°`);
  if (route.part !== undefined) said.push(sayPart(route.part) ?? 'whole');
  for (const aspect of PAGE_ASPECTS) {
    const [here, there] = [aspect.say(alone), aspect.say(situation)];
    if (here === there) continue;
    const lead = preposition(aspect);
    if (here !== null) said.push(`${lead}${here}`);
    // What means nothing for these pages need not be denied.
    else if (aspect.fits?.(alone) ?? true) said.push(`not ${lead}${there}`);
  }
  if (route.ownSheet) said.push(one ? 'on a sheet of its own' : 'each on a sheet of its own');
  // It may repeat what holds for the rest.
  return said.length === 0 && !route.tray ? ['like the rest'] : said;
}
