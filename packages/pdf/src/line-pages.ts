import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { Text } from '@foglio/core';
import { finish, newDocument } from './intake/made-pages';

/** The texts of one side, and how large it is as it is read, in points. */
export interface LinedSide {
  readonly width: number;
  readonly height: number;
  readonly texts: readonly Text[];
}

/** The font of lines, whose letters' widths the core knows. */
export const LINE_FONT = 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf';

/**
 * A PDF with a page for each side that has texts, and nothing but these on it, to be laid over the side. Written by a package
 * of its own, which knows fonts; only the letters that are used are in it.
 */
export async function linePages(sides: readonly LinedSide[]): Promise<Uint8Array> {
  const document = await newDocument();
  document.registerFont('line', await readFile(createRequire(import.meta.url).resolve(LINE_FONT)));
  for (const { width, height, texts } of sides) {
    document
      .addPage({ size: [width, height], margin: 0 })
      .font('line')
      .fillColor('black');
    for (const { text, x, y, size, turn } of texts) {
      // This package counts from the upper left corner.
      const top = height - y;
      document.save();
      if (turn === 180) document.rotate(180, { origin: [x, top] });
      // Letter by letter as far apart as the core reckons: pairs are not moved together.
      document.fontSize(size).text(text, x, top, { baseline: 'alphabetic', lineBreak: false, features: [] });
      document.restore();
    }
  }
  return finish(document);
}
