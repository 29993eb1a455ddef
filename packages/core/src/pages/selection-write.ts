import { measureRuns, type RunLengths } from './page-runs';

/** A piece of the text and how many pages of the list it stands for. */
interface Piece {
  readonly text: string;
  readonly covers: number;
}

/**
 * Pages written as the shortest selection text; reading it back gives the same pages. `last` is the document's last
 * page: the whole of it is "all", and a stretch that reaches its end is left open. Of texts equally long the plainer one
 * is written, and a range that begins at 1 keeps its "1-", since a hyphen alone after a comma reads as a slip.
 */
export function writeSelection(pages: readonly number[], last: number): string {
  const plain = writePieces(pages, last);
  const others = [writeRepeated(pages, last), writeBut(pages, last)];
  return others.reduce<string>((best, one) => (one !== null && one.length < best.length ? one : best), plain);
}

const SEPARATOR = ', ';

/** The shortest row of pieces, found from the end backwards: what follows a piece does not depend on the piece. */
function writePieces(pages: readonly number[], last: number): string {
  const runs = measureRuns(pages);
  const chosen: Piece[] = new Array<Piece>(pages.length);
  const lengths = new Float64Array(pages.length + 1);
  for (let at = pages.length - 1; at >= 0; at -= 1) {
    lengths[at] = Infinity;
    for (const piece of piecesAt(at, pages, runs, last)) {
      const rest = at + piece.covers;
      const length = piece.text.length + (rest < pages.length ? SEPARATOR.length + (lengths[rest] as number) : 0);
      if (length >= (lengths[at] as number)) continue;
      lengths[at] = length;
      chosen[at] = piece;
    }
  }
  const texts: string[] = [];
  for (let at = 0; at < pages.length; at += (chosen[at] as Piece).covers) texts.push((chosen[at] as Piece).text);
  return texts.join(SEPARATOR);
}

/** What can be written from a place in the list on, the plainest first: the page alone, a stretch, repeats, every second page. */
function piecesAt(at: number, pages: readonly number[], runs: RunLengths, last: number): Piece[] {
  const from = pages[at] as number;
  const pieces: Piece[] = [{ text: String(from), covers: 1 }];
  const stretch = Math.max(runs.up[at] as number, runs.down[at] as number);
  if (stretch > 1) pieces.push({ text: writeRange(from, pages[at + stretch - 1] as number, last), covers: stretch });
  const same = runs.same[at] as number;
  if (same > 1) pieces.push({ text: `${from} x${same}`, covers: same });
  const second = runs.upByTwo[at] as number;
  if (second > 2) {
    const to = pages[at + second - 1] as number;
    // Every second page to the end reaches it also where the last page itself is left out.
    const range = to >= last - 1 ? writeRange(from <= 2 ? 1 : from, last, last) : writeRange(from, to, last);
    pieces.push({ text: `${range} ${from % 2 === 1 ? 'odd' : 'even'}`, covers: second });
  }
  return pieces;
}

function writeRange(from: number, to: number, last: number): string {
  if (from === 1 && to === last) return 'all';
  return to === last && from < to ? `${from}-` : `${from}-${to}`;
}

/** A list that is the same row again and again: "(1, 5) x12". */
function writeRepeated(pages: readonly number[], last: number): string | null {
  const period = periodOf(pages);
  if (period === pages.length || period === 0) return null;
  const row = writePieces(pages.slice(0, period), last);
  const count = pages.length / period;
  return / |but/.test(row) ? `(${row}) x${count}` : `${row} x${count}`;
}

/** Length of the shortest row that makes up the list when repeated (the failure function of Knuth, Morris and Pratt). */
function periodOf(pages: readonly number[]): number {
  const failure = new Int32Array(pages.length);
  for (let at = 1, matched = 0; at < pages.length; at += 1) {
    while (matched > 0 && pages[at] !== pages[matched]) matched = failure[matched - 1] as number;
    if (pages[at] === pages[matched]) matched += 1;
    failure[at] = matched;
  }
  const period = pages.length - (failure[pages.length - 1] ?? 0);
  return pages.length % period === 0 ? period : pages.length;
}

/** A rising list with few gaps: "all but 3, 17". */
function writeBut(pages: readonly number[], last: number): string | null {
  const missing: number[] = [];
  for (let at = 1; at < pages.length; at += 1) {
    const before = pages[at - 1] as number;
    const page = pages[at] as number;
    if (page <= before) return null;
    for (let gap = before + 1; gap < page; gap += 1) missing.push(gap);
    // More gaps than pages are never shorter to name.
    if (missing.length > pages.length) return null;
  }
  const first = pages[0];
  if (first === undefined || missing.length === 0) return null;
  const whole = writeRange(first, pages.at(-1) as number, last);
  return `${whole} but ${writeTerms(missing, last)}`;
}

/**
 * Pages as numbers and rising ranges alone: what a route says of single pages, and what stands after "but". A text with
 * words in it is a rule that somebody made, and is kept apart from these.
 */
export function writeTerms(pages: readonly number[], last: number): string {
  const { up } = measureRuns(pages);
  const terms: string[] = [];
  for (let at = 0; at < pages.length; at += up[at] as number) {
    const to = pages[at + (up[at] as number) - 1] as number;
    terms.push(pages[at] === to ? String(to) : writeRange(pages[at] as number, to, last));
  }
  return terms.join(SEPARATOR);
}
