import { addressOf, typeOf, type AllBeside, type Beside } from '../browser/beside';
import { unpack } from '../office/package-parts';
import { kindOf } from '@foglio/pdf';
import { posix } from 'node:path';

/** A page with what it shows beside it. */
interface ArchivedPage {
  readonly kind: 'web-page' | 'markdown';
  /** In the archive. */
  readonly path: string;
  readonly bytes: Uint8Array;
  readonly beside: AllBeside;
}

interface ArchivedPicture {
  readonly bytes: Uint8Array;
  readonly kind: 'png' | 'jpeg' | 'tiff';
}

/** What a ZIP file is taken as. */
export type Archive = ArchivedPage | { readonly kind: 'pictures'; readonly pictures: readonly ArchivedPicture[] };

const PAGES = /\.(html?|xhtml|md|markdown)$/i;
const PICTURES = /\.(png|jpe?g|tiff?)$/i;

/** Parts that files of programs have, whatever pages are in them. */
const OF_PROGRAMS = /^(mimetype|\[Content_Types\]\.xml|META-INF\/.*)$/;

/** What systems put beside what is meant. */
const UNSEEN = /(^|\/)(\.|__MACOSX\/|Thumbs\.db$)/;

/** The names in an archive in the order in which a person would look. */
const inOrder = (names: readonly string[]): string[] =>
  [...names].sort(
    (one, other) =>
      one.split('/').length - other.split('/').length || one.localeCompare(other, 'en', { numeric: true }),
  );

/**
 * What a ZIP file holds: a page with its pictures beside it, or pictures alone, which are pages of one document.
 *
 * @returns null where it is neither
 * @throws PdfError where it is damaged, or takes too much room
 */
export function readArchive(file: Uint8Array): Archive | null {
  const names = inOrder(unpack(file, () => false).names.filter((name) => !name.endsWith('/') && !UNSEEN.test(name)));
  if (names.some((name) => OF_PROGRAMS.test(name))) return null;
  const pages = names.filter((name) => PAGES.test(name));
  const path = pages.find((name) => /(^|\/)index\.x?html?$/i.test(name)) ?? pages[0];
  if (path !== undefined) return readPage(file, path);
  const pictures = names.filter((name) => PICTURES.test(name));
  return pictures.length > 0 && pictures.length === names.length ? readPictures(file, pictures) : null;
}

function readPage(file: Uint8Array, path: string): ArchivedPage | null {
  const { parts } = unpack(file, (name) => name === path || typeOf(name) !== null);
  const bytes = parts[path];
  if (!bytes) return null;
  const beside = new Map<string, Beside>(
    Object.entries(parts).flatMap(([name, held]): [string, Beside][] => {
      const type = typeOf(name);
      return type === null ? [] : [[addressOf(posix.normalize(name)), { bytes: held, type }]];
    }),
  );
  return { kind: /\.(md|markdown)$/i.test(path) ? 'markdown' : 'web-page', path, bytes, beside };
}

function readPictures(file: Uint8Array, names: readonly string[]): Archive | null {
  const wanted = new Set(names);
  const { parts } = unpack(file, (name) => wanted.has(name));
  const pictures = names.flatMap((name): ArchivedPicture[] => {
    const bytes = parts[name];
    const kind = bytes && kindOf(bytes);
    return kind === 'png' || kind === 'jpeg' || kind === 'tiff' ? [{ bytes: bytes!, kind }] : [];
  });
  return pictures.length === names.length ? { kind: 'pictures', pictures } : null;
}
