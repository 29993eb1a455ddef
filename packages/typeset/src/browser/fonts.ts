import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { FamilyName } from '../type/typeface';
import { HOME } from './address';

const require = createRequire(import.meta.url);

/** Where a document finds them. */
const FONTS = `${HOME}fonts/`;

/** Which letters each part of a family holds, as its package says (from its `unicode.json`). */
const PARTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'hebrew', 'vietnamese', 'greek-ext', 'cyrillic-ext'];

/** Fonts that documents name and nobody may ship, and what is alike in width, letter by letter (common practice). */
const ALIKE: readonly (readonly [names: readonly string[], family: FamilyName])[] = [
  [['Calibri', 'Calibri Light', 'Carlito', 'Aptos', 'Aptos Display'], 'carlito'],
  [['Arial', 'Helvetica', 'Liberation Sans', 'Arimo'], 'arimo'],
  [['Times New Roman', 'Times', 'Liberation Serif', 'Tinos'], 'tinos'],
  [['Courier New', 'Courier', 'Liberation Mono', 'Cousine'], 'cousine'],
  [['Cambria', 'Caladea'], 'caladea'],
];

/** What stands in for fonts of other widths, by how their letters are made (common practice). */
const LIKE: readonly (readonly [names: readonly string[], family: FamilyName])[] = [
  [
    [
      'Verdana',
      'Tahoma',
      'Segoe UI',
      'Trebuchet MS',
      'Century Gothic',
      'Gill Sans MT',
      'Open Sans',
      'Roboto',
      'Franklin Gothic Book',
    ],
    'arimo',
  ],
  [
    ['Georgia', 'Garamond', 'Book Antiqua', 'Palatino Linotype', 'Century', 'Century Schoolbook', 'Baskerville'],
    'tinos',
  ],
  [['Consolas', 'Lucida Console', 'Menlo', 'Monaco'], 'cousine'],
];

/** Whether a font is here, or one that is alike in width. */
export const hasAlike = (name: string): boolean =>
  ALIKE.some(([names]) => names.some((one) => one.toLowerCase() === name.toLowerCase()));

const CUTS = [
  [400, 'normal'],
  [400, 'italic'],
  [700, 'normal'],
  [700, 'italic'],
] as const;

type Ranges = Readonly<Record<string, string>>;

const rangesOf = (family: FamilyName): Ranges => require(`@fontsource/${family}/unicode.json`) as Ranges;

let css: string | undefined;

/** Style that gives documents the fonts they name; a browser fetches only what it needs of them. */
export const fontFaces = (): string =>
  (css ??= [...ALIKE, ...LIKE].flatMap(([names, family]) => facesOf(names, family)).join('\n'));

function facesOf(names: readonly string[], family: FamilyName): string[] {
  const ranges = rangesOf(family);
  const parts = PARTS.filter((part) => ranges[part] !== undefined);
  return names.flatMap((name) =>
    parts.flatMap((part) =>
      CUTS.map(
        ([weight, style]) =>
          `@font-face{font-family:"${name}";font-weight:${weight};font-style:${style};` +
          `src:url(${FONTS}${family}/${family}-${part}-${weight}-${style}.woff2);unicode-range:${ranges[part]}}`,
      ),
    ),
  );
}

const ASKED = /^([a-z]+)\/([a-z0-9-]+\.woff2)$/;

/** The font at an address; null where none of ours is there. */
export function fontFile(url: string): Buffer | null {
  if (!url.startsWith(FONTS)) return null;
  const [, family, file] = ASKED.exec(url.slice(FONTS.length)) ?? [];
  if (family === undefined || file === undefined) return null;
  try {
    return readFileSync(require.resolve(`@fontsource/${family}/files/${file}`));
  } catch {
    return null;
  }
}
