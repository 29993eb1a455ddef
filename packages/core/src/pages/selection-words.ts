import { measureRuns } from './page-runs';

/** Fewer pages than this are said one by one: "1, then 2" is plainer than "1 to 2". */
const SHORTEST_STRETCH = 3;
/** "every second page from 1 to 7" takes as long to say as three numbers. */
const SHORTEST_SECOND = 4;

/** The list cut into what can be said in one breath. */
function breaths(pages: readonly number[]): string[] {
  const { up, down, upByTwo, same } = measureRuns(pages);
  const said: string[] = [];
  for (let at = 0; at < pages.length;) {
    const from = pages[at] as number;
    const end = (covers: number): number => pages[at + covers - 1] as number;
    let covers = 1;
    let text = String(from);
    if ((same[at] as number) > 1) {
      covers = same[at] as number;
      text = `${from} (${covers} times)`;
    } else if ((up[at] as number) >= SHORTEST_STRETCH) {
      covers = up[at] as number;
      text = `${from} to ${end(covers)}`;
    } else if ((down[at] as number) >= SHORTEST_STRETCH) {
      covers = down[at] as number;
      text = `${from} to ${end(covers)} backwards`;
    } else if ((upByTwo[at] as number) >= SHORTEST_SECOND) {
      covers = upByTwo[at] as number;
      text = `every second from ${from} to ${end(covers)}`;
    }
    said.push(text);
    at += covers;
  }
  return said;
}

/** Pages in words: "pages 1 to 3, then 5; 4 pages", "pages 5 to 2 backwards; 4 pages". */
export function sayPages(pages: readonly number[]): string {
  if (pages.length === 0) return 'no pages';
  if (pages.length === 1) return `page ${pages[0]}`;
  return `pages ${breaths(pages).join(', then ')}; ${pages.length} pages`;
}

/** Numbers as part of a sentence, in their order: "1", "1, 6 and 9 to 12", "3 to 1 backwards". */
export function listNumbers(numbers: readonly number[]): string {
  const said = breaths(numbers);
  const last = said.pop() ?? 'none';
  return said.length === 0 ? last : `${said.join(', ')} and ${last}`;
}

/** Pages as part of a sentence: "page 1", "pages 1, 6 and 9 to 12". */
export const listPages = (pages: readonly number[]): string =>
  `${pages.length === 1 ? 'page' : 'pages'} ${listNumbers(pages)}`;
