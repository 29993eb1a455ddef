import { formFor, laidOut, mmToPoints, type Form, type LaidOut } from '@foglio/core';
import { A4, pageOf } from '../table/form-setup';
import { Pen } from '../type/pen';
import { remarksOnLetters } from '../type/remarks';
import { Typeface } from '../type/typeface';
import { encodingOf, lettersOf } from './letters';

const MARGIN = mmToPoints(20);

/** Between columns. */
const GAP = mmToPoints(8);

/** Points: 80 letters of this font at this size just fill a line of A4, as terminals and typewriters have them. */
const SIZE = 10;
const LEADING = 1.2;

/** Of the size: how wide each letter is. */
const LETTER = 1233 / 2048;

const MONO = 'dejavu-fonts-ttf/ttf/DejaVuSansMono.ttf';

/** Columns between tab stops (common practice). */
const TAB = 8;

/** How many letters a line holds, how many lines a column, and how many columns a page. */
export interface TextGrid {
  readonly letters: number;
  readonly lines: number;
  readonly columns: number;
}

/** A plain text on its pages, and how it was taken. */
export interface LaidText {
  readonly pages: number;
  readonly laid: LaidOut;
  readonly remarks: readonly string[];
}

/**
 * Lays a plain text out: letters of one width; longer lines are broken at a space where there is one; a form feed begins a
 * new page.
 *
 * @param document without pages; it is left open
 */
export function layOutText(document: PDFKit.PDFDocument, bytes: Uint8Array, asked: Form): LaidText {
  const form = formFor('text', asked);
  const encoding = form.encoding ?? encodingOf(bytes);
  const { paper = A4, orientation = 'portrait', typeSize = SIZE, columns = 1 } = form;
  const page = pageOf(paper, orientation);
  const width = (page.width - 2 * MARGIN - (columns - 1) * GAP) / columns;
  const leading = typeSize * LEADING;
  const grid: TextGrid = {
    letters: Math.max(1, Math.floor(width / (typeSize * LETTER) + 0.01)),
    lines: Math.max(1, Math.floor((page.height - 2 * MARGIN) / leading)),
    columns,
  };
  const missing = new Set<string>();
  const typeface = new Typeface([MONO], missing);
  const pen = new Pen(document);
  const pages = textPages(lettersOf(bytes, encoding), grid);
  for (const lines of pages) {
    document.addPage({ size: [page.width, page.height], margin: 0 });
    lines.forEach((line, index) => {
      const x = MARGIN + Math.floor(index / grid.lines) * (width + GAP);
      const y = MARGIN + (index % grid.lines) * leading + typeface.ascent * typeSize;
      if (line !== '') pen.text(line, typeface, typeSize, x, y, '#000000');
    });
    pen.flush();
  }
  const taken: Form = { paper, orientation, typeSize, columns, encoding };
  return { pages: pages.length, laid: laidOut('text', asked, taken), remarks: remarksOnLetters(missing) };
}

/** The lines of each page, column after column; an empty text is one empty page. */
export function textPages(text: string, { letters, lines: inColumn, columns }: TextGrid): string[][] {
  const most = inColumn * columns;
  const pages = text
    .replace(/\r\n?|\v/g, '\n')
    .split('\f')
    .flatMap((part) => {
      const lines = part
        .replace(/\n$/, '')
        .split('\n')
        .flatMap((line) => linesOf(line, letters));
      return Array.from({ length: Math.ceil(lines.length / most) }, (_, index) =>
        lines.slice(index * most, (index + 1) * most),
      );
    });
  // A form feed at the very end ends the last page, and begins none.
  if (text.endsWith('\f') && pages.length > 1) pages.pop();
  return pages;
}

/** One line of text as lines of paper, in time in proportion to it. */
function linesOf(line: string, most: number): string[] {
  const letters = expandTabs(line);
  const lines: string[] = [];
  let from = 0;
  while (letters.length - from > most) {
    const space = breakAt(letters, from, most);
    lines.push(letters.slice(from, space ?? from + most).join(''));
    from = space === null ? from + most : space + 1;
  }
  return [...lines, letters.slice(from).join('')];
}

/** The last space of a line that has anything before it; a line of spaces before a long word would be a line of nothing. */
function breakAt(letters: readonly string[], from: number, most: number): number | null {
  for (let at = from + most; at > from; at -= 1) {
    if (letters[at] !== ' ') continue;
    return letters.slice(from, at).some((letter) => letter !== ' ') ? at : null;
  }
  return null;
}

/** The letters of a line, with spaces for its tabs. */
function expandTabs(line: string): string[] {
  const letters: string[] = [];
  for (const letter of line) {
    if (letter !== '\t') letters.push(letter);
    else for (let count = TAB - (letters.length % TAB); count > 0; count -= 1) letters.push(' ');
  }
  return letters;
}
