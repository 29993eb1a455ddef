import { HOME } from './address';

/** What a page asks for and has with it. */
export interface Beside {
  readonly bytes: Uint8Array;
  readonly type: string;
}

/** By their addresses. */
export type AllBeside = ReadonlyMap<string, Beside>;

/** What pages show, and how it looks, by the ends of names (IANA media types). */
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  avif: 'image/avif',
  bmp: 'image/bmp',
  svg: 'image/svg+xml',
  css: 'text/css',
  woff: 'font/woff',
  woff2: 'font/woff2',
  ttf: 'font/ttf',
  otf: 'font/otf',
};

/** @returns null where it is nothing that a page shows: what runs is never with it */
export const typeOf = (name: string): string | null =>
  TYPES[/\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? ''] ?? null;

/** The address of a path beside the page. */
export const addressOf = (path: string): string =>
  HOME +
  path
    .split('/')
    .map((part) => encodeURIComponent(part))
    .join('/');

/** What is at an address, however that is written, and whatever is asked of it. */
export function besideAt(url: string, beside: AllBeside): Beside | undefined {
  const [plain = url] = url.split(/[?#]/);
  return beside.get(url) ?? beside.get(plain) ?? beside.get(sameSpelling(plain));
}

/** Percent signs where they are needed and nowhere else. */
function sameSpelling(url: string): string {
  try {
    return new URL(url).href;
  } catch {
    return url;
  }
}
