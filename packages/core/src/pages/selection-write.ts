/** Stretches of pages that a range can name: upwards or backwards by one. */
interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** The shortest text takes a range from two pages on; said in words, "1, then 2" is plainer than "1 to 2". */
const SHORTEST_WRITTEN = 2;
const SHORTEST_SAID = 3;

function stretches(pages: readonly number[], shortest: number): Stretch[] {
  const found: Stretch[] = [];
  let start = 0;
  while (start < pages.length) {
    const from = pages[start] as number;
    const step = (pages[start + 1] ?? NaN) - from;
    let end = start;
    if (Math.abs(step) === 1) {
      while (end + 1 < pages.length && (pages[end + 1] as number) - (pages[end] as number) === step) end += 1;
    }
    if (end - start + 1 < shortest) end = start;
    found.push({ from, to: pages[end] as number });
    start = end + 1;
  }
  return found;
}

/**
 * Pages written as a selection text; reading it back gives the same pages. `last` is the document's last page: the
 * whole of it is "all", and a stretch that reaches its end is left open.
 */
export function writeSelection(pages: readonly number[], last: number): string {
  const parts = stretches(pages, SHORTEST_WRITTEN).map(({ from, to }) => {
    if (from === to) return String(from);
    if (from === 1 && to === last) return 'all';
    return to === last && from < to ? `${from}-` : `${from}-${to}`;
  });
  return parts.join(', ');
}

/** Pages in words: "pages 1 to 3, then 5; 4 pages", "pages 5 to 2 backwards; 4 pages". */
export function sayPages(pages: readonly number[]): string {
  if (pages.length === 0) return 'no pages';
  const said = stretches(pages, SHORTEST_SAID).map(({ from, to }) => {
    if (from === to) return String(from);
    return from < to ? `${from} to ${to}` : `${from} to ${to} backwards`;
  });
  const count = pages.length === 1 ? '1 page' : `${pages.length} pages`;
  if (pages.length === 1) return `page ${said[0]}`;
  return `pages ${said.join(', then ')}; ${count}`;
}

/** Pages as part of a sentence: "page 1", "pages 1, 6 and 9 to 12". */
export function listPages(pages: readonly number[]): string {
  const said = stretches(pages, SHORTEST_SAID).map(({ from, to }) => (from === to ? String(from) : `${from} to ${to}`));
  const last = said.pop() ?? 'none';
  const all = said.length === 0 ? last : `${said.join(', ')} and ${last}`;
  return pages.length === 1 ? `page ${all}` : `pages ${all}`;
}
