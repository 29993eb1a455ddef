import { pathsAskedFor } from '@foglio/core';
import { inOrder, placeOf } from './dropped-files';

const PAGES = /\.(html?|xhtml|md|markdown)$/i;
const STYLES = /\.css$/i;
const PICTURES = /\.(png|jpe?g|tiff?)$/i;

/** What is put together in memory, in bytes; more comes file by file. */
const MOST = 150 * 1024 * 1024;

/** What a page shows is looked for in so much of it, in bytes. */
const MOST_OF_PAGE = 10 * 1024 * 1024;

/**
 * Files that came together, as documents: a page with what it shows of the others is one, and pictures are pages of one where
 * that is wanted. All others are documents of their own, in their order.
 *
 * @param pictures whether pictures of one batch are one document
 */
export async function batched(files: readonly File[], pictures: 'together' | 'each'): Promise<File[]> {
  if (files.length < 2) return [...files];
  const byPlace = new Map(files.map((file) => [placeOf(file), file]));
  const used = new Set<File>();
  const pages = new Map<File, File>();
  for (const page of files) {
    if (!PAGES.test(page.name) || page.size > MOST_OF_PAGE) continue;
    const shown = await shownBy(page, byPlace);
    if (shown.size === 0 || sizeOf([page, ...shown.values()]) > MOST) continue;
    for (const file of shown.values()) used.add(file);
    pages.set(page, await zipped(page.name, new Map([[page.name, page], ...shown])));
  }
  const rest = files.filter((file) => !used.has(file)).map((file) => pages.get(file) ?? file);
  return pictures === 'each' ? rest : picturesTogether(rest);
}

/** What stands beside a page, by the paths under which it asks for it; what its styles ask for too. */
async function shownBy(page: File, byPlace: ReadonlyMap<string, File>): Promise<Map<string, File>> {
  const folder = placeOf(page).split('/').slice(0, -1).join('/');
  const shown = new Map<string, File>();
  const asked = pathsAskedFor(await page.text());
  for (const path of asked) {
    const file = byPlace.get(folder === '' ? path : `${folder}/${path}`);
    if (!file || file === page || PAGES.test(file.name)) continue;
    shown.set(path, file);
    if (!STYLES.test(path) || file.size > MOST_OF_PAGE) continue;
    const more = pathsAskedFor(await file.text(), path.split('/').slice(0, -1).join('/'));
    asked.push(...more.filter((one) => !asked.includes(one)));
  }
  return shown;
}

/** Pictures as one document in the place of the first of them. */
async function picturesTogether(files: readonly File[]): Promise<File[]> {
  const pictures = inOrder(files.filter(({ name }) => PICTURES.test(name)));
  if (pictures.length < 2 || sizeOf(pictures) > MOST) return [...files];
  const [first] = files.filter((file) => pictures.includes(file));
  const name = `${pictures[0]!.name} and ${pictures.length - 1} more`;
  // Numbered, so that they stay in this order, and none takes the place of another of its name.
  const numbered = new Map(pictures.map((one, at) => [`${String(at + 1).padStart(6, '0')} ${one.name}`, one]));
  const together = await zipped(name, numbered);
  return files.flatMap((file) => (file === first ? [together] : pictures.includes(file) ? [] : [file]));
}

const sizeOf = (files: readonly File[]): number => files.reduce((sum, { size }) => sum + size, 0);

/** The library is fetched only where something is put together. */
async function zipped(name: string, files: ReadonlyMap<string, File>): Promise<File> {
  const { zipSync } = await import('fflate');
  const entries = await Promise.all(
    [...files].map(async ([path, file]) => [path, new Uint8Array(await file.arrayBuffer())] as const),
  );
  return new File([zipSync(Object.fromEntries(entries), { level: 0 })], name, { type: 'application/zip' });
}
