import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { create, type Font } from 'fontkit';
import { toSfnt } from 'woff2sfnt-sfnt2woff';

const require = createRequire(import.meta.url);

/** Typefaces that come with Foglio, each as wide, letter by letter, as one that office programs take (common practice). */
export type FamilyName = 'carlito' | 'arimo' | 'tinos' | 'cousine' | 'caladea';

/** The alphabets that a family is parted into, the most frequent first. */
const PARTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'hebrew', 'vietnamese', 'greek-ext', 'cyrillic-ext'];

/** What a family has not; it knows most alphabets, arrows and symbols. */
const REST = 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed';

export interface Cut {
  readonly family: FamilyName;
  readonly bold: boolean;
  readonly italic: boolean;
}

/** A file of letters. */
export interface Face {
  /** Of which no two are alike. */
  readonly key: string;
  readonly bytes: Buffer;
  readonly font: Font;
}

const faces = new Map<string, Face | null>();

/** Null where the family has no such part. */
function faceOf(path: string): Face | null {
  const known = faces.get(path);
  if (known !== undefined) return known;
  const face = readFace(path);
  faces.set(path, face);
  return face;
}

function readFace(path: string): Face | null {
  let file: string;
  try {
    file = require.resolve(path);
  } catch {
    return null;
  }
  const read = readFileSync(file);
  // Inflated once: the PDF library would inflate a table of it anew for every letter.
  const bytes = path.endsWith('.woff') ? toSfnt(read) : read;
  return { key: path, bytes, font: create(bytes) as Font };
}

function pathsOf({ family, bold, italic }: Cut): string[] {
  const cut = `${bold ? 700 : 400}-${italic ? 'italic' : 'normal'}`;
  const suffix = `${bold ? 'Bold' : ''}${italic ? 'Oblique' : ''}`;
  const rest = suffix === '' ? REST : `${REST}-${suffix}`;
  return [...PARTS.map((part) => `@fontsource/${family}/files/${family}-${part}-${cut}.woff`), `${rest}.ttf`];
}

/** Text of one face. */
export interface Run {
  readonly face: Face;
  readonly text: string;
}

/**
 * A cut of a family over all alphabets: each letter is taken from the first of its files that has it. What none has is
 * taken from the last, which draws a box for it, and is noted.
 */
export class Typeface {
  private readonly byLetter = new Map<number, Face>();
  private readonly widths = new Map<number, number>();
  /** Asked of the font once: it works it out anew each time. */
  private measured: { readonly ascent: number; readonly descent: number } | null = null;

  /** @param paths of its files in their packages, the first first */
  constructor(
    private readonly paths: readonly string[],
    private readonly missing: Set<string> = new Set(),
  ) {}

  /** Points above the line that letters of one point need. */
  get ascent(): number {
    return this.body().ascent;
  }

  /** Points below it. */
  get descent(): number {
    return this.body().descent;
  }

  private body(): { readonly ascent: number; readonly descent: number } {
    if (this.measured) return this.measured;
    const { ascent, descent, unitsPerEm } = faceOf(this.paths[0]!)!.font;
    return (this.measured = { ascent: ascent / unitsPerEm, descent: -descent / unitsPerEm });
  }

  private faceFor(letter: number): Face {
    const known = this.byLetter.get(letter);
    if (known) return known;
    let found: Face | null = null;
    for (const path of this.paths) {
      const face = faceOf(path);
      if (face) found = face;
      if (face?.font.hasGlyphForCodePoint(letter)) break;
    }
    if (!found!.font.hasGlyphForCodePoint(letter)) this.missing.add(String.fromCodePoint(letter));
    this.byLetter.set(letter, found!);
    return found!;
  }

  /** The text in stretches of one face. */
  runs(text: string): Run[] {
    const runs: Run[] = [];
    let face: Face | null = null;
    let from = 0;
    let at = 0;
    for (const letter of text) {
      const own = this.faceFor(letter.codePointAt(0)!);
      if (face !== null && own !== face) {
        runs.push({ face, text: text.slice(from, at) });
        from = at;
      }
      face = own;
      at += letter.length;
    }
    if (face !== null) runs.push({ face, text: text.slice(from) });
    return runs;
  }

  /** Points that a text of one point takes; letters are not moved together. */
  width(text: string): number {
    let sum = 0;
    for (const letter of text) {
      const point = letter.codePointAt(0)!;
      let width = this.widths.get(point);
      if (width === undefined) {
        const { font } = this.faceFor(point);
        width = font.glyphForCodePoint(point).advanceWidth / font.unitsPerEm;
        this.widths.set(point, width);
      }
      sum += width;
    }
    return sum;
  }
}

/** All cuts that a document uses, each made once. */
export class Typefaces {
  /** Letters that no face has. */
  readonly missing = new Set<string>();
  private readonly made = new Map<string, Typeface>();
  /** Styles share what says their cut; most cells have one of few. */
  private readonly known = new WeakMap<Cut, Typeface>();

  of(cut: Cut): Typeface {
    const found = this.known.get(cut);
    if (found) return found;
    const key = `${cut.family} ${cut.bold} ${cut.italic}`;
    const face = this.made.get(key) ?? new Typeface(pathsOf(cut), this.missing);
    this.made.set(key, face);
    this.known.set(cut, face);
    return face;
  }
}

/** Which family stands for a font of that name (common practice: alike in width). */
export function familyFor(name: string | undefined): FamilyName {
  const asked = name?.toLowerCase() ?? '';
  if (/courier|consolas|mono|lucida console/.test(asked)) return 'cousine';
  if (/cambria|caladea/.test(asked)) return 'caladea';
  if (/times|georgia|garamond|serif|roman|palatino|bookman|century/.test(asked) && !/sans/.test(asked)) return 'tinos';
  if (/arial|helvetica|verdana|tahoma|segoe|liberation sans|arimo/.test(asked)) return 'arimo';
  return 'carlito';
}
