import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { create } from 'fontkit';
import { finish, newDocument, type MadePages } from './made-pages';

/** A4, portrait, in points (ISO 216). */
const PAGE: [number, number] = [595.276, 841.89];

/** 20 mm, in points. */
const MARGIN = (20 / 25.4) * 72;

/** Points: 80 letters of this font at this size just fill a line, as terminals and typewriters have them. */
const SIZE = 10;
const LEADING = 12;
const COLUMNS = 80;
const LINES = Math.floor((PAGE[1] - 2 * MARGIN) / LEADING);

/** Columns between tab stops (common practice). */
const TAB = 8;

/**
 * A plain text as a PDF: A4, letters of one width, 80 to a line. Longer lines are broken at a space where there is one; a
 * form feed begins a new page.
 */
export async function textPages(text: string): Promise<MadePages> {
  const font = await readFile(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/ttf/DejaVuSansMono.ttf'));
  const document = await newDocument();
  document.registerFont('text', font);
  for (const lines of pagesOf(text)) {
    document.addPage({ size: PAGE, margin: MARGIN }).font('text').fontSize(SIZE);
    lines.forEach((line, index) => {
      if (line !== '') document.text(line, MARGIN, MARGIN + index * LEADING, { lineBreak: false });
    });
  }
  return { bytes: await finish(document), remarks: remarksOn(text, font) };
}

/** The lines of each page; an empty text is one empty page. */
export function pagesOf(text: string): string[][] {
  const pages = text
    .replace(/\r\n?|\v/g, '\n')
    .split('\f')
    .flatMap((part) => {
      const lines = part.replace(/\n$/, '').split('\n').flatMap(linesOf);
      return Array.from({ length: Math.ceil(lines.length / LINES) }, (_, index) =>
        lines.slice(index * LINES, (index + 1) * LINES),
      );
    });
  // A form feed at the very end ends the last page, and begins none.
  if (text.endsWith('\f') && pages.length > 1) pages.pop();
  return pages;
}

/** One line of text as lines of paper. */
function linesOf(line: string): string[] {
  const lines: string[] = [];
  let rest = [...expandTabs(line)];
  while (rest.length > COLUMNS) {
    const space = rest.lastIndexOf(' ', COLUMNS);
    // A line of spaces before a long word would be a line of nothing.
    const breaksAtSpace = space > 0 && rest.slice(0, space).some((letter) => letter !== ' ');
    lines.push(rest.slice(0, breaksAtSpace ? space : COLUMNS).join(''));
    rest = rest.slice(breaksAtSpace ? space + 1 : COLUMNS);
  }
  return [...lines, rest.join('')];
}

function expandTabs(line: string): string {
  let column = 0;
  return [...line]
    .map((letter) => {
      const letters = letter === '\t' ? ' '.repeat(TAB - (column % TAB)) : letter;
      column += letter === '\t' ? letters.length : 1;
      return letters;
    })
    .join('');
}

function remarksOn(text: string, bytes: Buffer): string[] {
  const font = create(bytes);
  if (!('hasGlyphForCodePoint' in font)) return [];
  const missing = [...new Set(text)].filter(
    (letter) => !/\s|\u001b/.test(letter) && !font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0),
  );
  if (missing.length === 0) return [];
  const shown = missing.slice(0, 5).join(' ');
  const what = missing.length === 1 ? `The letter ${shown} is` : `${missing.length} letters (${shown}) are`;
  return [`${what} not in the font and print as boxes.`];
}
