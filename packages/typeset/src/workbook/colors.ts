import type { Color } from 'exceljs';

/** A colour as the types of the library have it, and what of it they leave out. */
export type FileColor = Partial<Color> & { readonly tint?: number; readonly indexed?: number };

/** Of the theme that office programs begin with, in the order in which cells refer to them (common practice, from memory). */
const USUAL_THEME = [
  'FFFFFF',
  '000000',
  'E7E6E6',
  '44546A',
  '4472C4',
  'ED7D31',
  'A5A5A5',
  'FFC000',
  '5B9BD5',
  '70AD47',
  '0563C1',
  '954F72',
];

/** ECMA-376, 18.8.27: the colours that are referred to by number. */
const INDEXED = [
  '000000',
  'FFFFFF',
  'FF0000',
  '00FF00',
  '0000FF',
  'FFFF00',
  'FF00FF',
  '00FFFF',
  '000000',
  'FFFFFF',
  'FF0000',
  '00FF00',
  '0000FF',
  'FFFF00',
  'FF00FF',
  '00FFFF',
  '800000',
  '008000',
  '000080',
  '808000',
  '800080',
  '008080',
  'C0C0C0',
  '808080',
  '9999FF',
  '993366',
  'FFFFCC',
  'CCFFFF',
  '660066',
  'FF8080',
  '0066CC',
  'CCCCFF',
  '000080',
  'FF00FF',
  'FFFF00',
  '00FFFF',
  '800080',
  '800000',
  '008080',
  '0000FF',
  '00CCFF',
  'CCFFFF',
  'CCFFCC',
  'FFFF99',
  '99CCFF',
  'FF99CC',
  'CC99FF',
  'FFCC99',
  '3366FF',
  '33CCCC',
  '99CC00',
  'FFCC00',
  'FF9900',
  'FF6600',
  '666699',
  '969696',
  '003366',
  '339966',
  '003300',
  '333300',
  '993300',
  '993366',
  '333399',
  '333333',
];

/** In a theme they are written in another order than cells refer to them: dark before light (ECMA-376, 20.1.6.2). */
const WRITTEN = [
  'dk1',
  'lt1',
  'dk2',
  'lt2',
  'accent1',
  'accent2',
  'accent3',
  'accent4',
  'accent5',
  'accent6',
  'hlink',
  'folHlink',
];
const REFERRED = ['lt1', 'dk1', 'lt2', 'dk2', ...WRITTEN.slice(4)];

/** The colours of a workbook's theme, as cells refer to them. */
export function themeColors(theme: string): readonly string[] {
  const found = REFERRED.map((name, at) => {
    const inside = new RegExp(`<a:${name}>\\s*<a:(?:srgbClr val|sysClr [^>]*lastClr)="([0-9A-Fa-f]{6})"`).exec(theme);
    return inside?.[1] ?? USUAL_THEME[at]!;
  });
  return found;
}

/** "#rrggbb", or what is given where the file says none. */
export function colorOf<T>(color: FileColor | undefined, theme: readonly string[], otherwise: T): string | T {
  if (!color) return otherwise;
  // 64 and 65 are those of the system: black on white.
  const base =
    color.theme !== undefined
      ? theme[color.theme]
      : color.indexed !== undefined
        ? INDEXED[color.indexed]
        : color.argb?.slice(-6);
  if (base === undefined || !/^[0-9A-Fa-f]{6}$/.test(base)) return otherwise;
  return `#${tinted(base, color.tint ?? 0)}`.toLowerCase();
}

/** Lighter or darker (ECMA-376, 18.8.19): its luminance nearer to white or to black. */
function tinted(color: string, tint: number): string {
  if (tint === 0) return color;
  const parts = [0, 2, 4].map((at) => Number.parseInt(color.slice(at, at + 2), 16) / 255);
  const [most, least] = [Math.max(...parts), Math.min(...parts)];
  const light = (most + least) / 2;
  const wanted = tint < 0 ? light * (1 + tint) : light * (1 - tint) + tint;
  // Hue and saturation stay where every part keeps its place between the least and the most.
  const spread = (most - least) / 2;
  const saturation = spread === 0 ? 0 : spread / (light <= 0.5 ? light : 1 - light);
  const room = saturation * (wanted <= 0.5 ? wanted : 1 - wanted);
  const moved = parts.map((part) => (spread === 0 ? wanted : wanted + ((part - light) / spread) * room));
  return moved
    .map((part) =>
      Math.round(part * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');
}
