import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Debian's poppler-utils and qpdf as judges of what we write. */

function withFile<T>(pdf: Uint8Array, work: (path: string, folder: string) => T): T {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-'));
  try {
    const path = join(folder, 'judged.pdf');
    writeFileSync(path, pdf);
    return work(path, folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Width and height of each page in points, as pdfinfo shows them, and its Rotate. */
export function pageSizes(pdf: Uint8Array): { width: number; height: number; rotate: number }[] {
  const told = withFile(pdf, (path) => execFileSync('pdfinfo', ['-f', '1', '-l', '99999', path], { encoding: 'utf8' }));
  const sizes = [...told.matchAll(/^Page +\d+ size: +([\d.]+) x ([\d.]+) pts/gm)];
  const rotations = [...told.matchAll(/^Page +\d+ rot: +(\d+)/gm)];
  return sizes.map((size, index) => ({
    width: Number(size[1]),
    height: Number(size[2]),
    rotate: Number(rotations[index]?.[1]),
  }));
}

/** The text of each page. */
export function pageTexts(pdf: Uint8Array): string[] {
  const told = withFile(pdf, (path) => execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }));
  return told.split('\f').slice(0, -1);
}

/** What qpdf finds wrong; empty where nothing. */
export function qpdfComplaints(pdf: Uint8Array): string {
  return withFile(pdf, (path) => {
    try {
      execFileSync('qpdf', ['--check', path], { encoding: 'utf8', stdio: 'pipe' });
      return '';
    } catch (error) {
      const { stdout, stderr } = error as { stdout: string; stderr: string };
      return stdout + stderr;
    }
  });
}

/** Files attached to a PDF, by name. */
export function attachments(pdf: Uint8Array): Record<string, string> {
  return withFile(pdf, (path, folder) => {
    const listed = execFileSync('pdfdetach', ['-list', path], { encoding: 'utf8' });
    const names = [...listed.matchAll(/^\d+: (.+)$/gm)].map((match) => match[1] as string);
    execFileSync('pdfdetach', ['-saveall', '-o', folder, path]);
    return Object.fromEntries(names.map((name) => [name, readFileSync(join(folder, name), 'utf8')]));
  });
}

export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly pixels: Buffer;
}

/** A page in grey without smoothing, at a resolution: a byte a pixel, 0 black. */
export const render = (pdf: Uint8Array, page: number, dpi: number): Picture =>
  draw(pdf, page, ['-gray', '-aa', 'no', '-aaVector', 'no', '-r', String(dpi)]);

/** A page in colour, at a resolution: three bytes a pixel. */
export const renderColour = (pdf: Uint8Array, page: number, dpi: number): Picture =>
  draw(pdf, page, ['-r', String(dpi)]);

/** Every page in colour, at a resolution. */
export function renderAll(pdf: Uint8Array, dpi: number): Picture[] {
  let left = drawn(pdf, ['-r', String(dpi)]);
  const pictures: Picture[] = [];
  while (left.length > 0) {
    const { width, height, pixels } = pictureIn(left);
    const bytes = width * height * 3;
    pictures.push({ width, height, pixels: pixels.subarray(0, bytes) });
    left = pixels.subarray(bytes);
  }
  return pictures;
}

const draw = (pdf: Uint8Array, page: number, options: readonly string[]): Picture =>
  pictureIn(drawn(pdf, [...options, '-f', String(page), '-l', String(page)]));

const drawn = (pdf: Uint8Array, options: readonly string[]): Buffer =>
  withFile(pdf, (path) => execFileSync('pdftoppm', [...options, '-cropbox', path], { maxBuffer: 1 << 28 }));

function pictureIn(bytes: Buffer): Picture {
  const head = /^P[56]\s+(\d+)\s+(\d+)\s+255\s/.exec(bytes.subarray(0, 40).toString('latin1'));
  if (!head) throw new Error('pdftoppm wrote no picture');
  return { width: Number(head[1]), height: Number(head[2]), pixels: bytes.subarray(head[0].length) };
}

/** A file locked by qpdf. @param options of its 256-bit encryption, such as "--print=none" */
export function lock(pdf: Uint8Array, userPassword: string, ownerPassword: string, ...options: string[]): Uint8Array {
  return withFile(pdf, (path, folder) => {
    const out = join(folder, 'locked.pdf');
    execFileSync('qpdf', ['--encrypt', userPassword, ownerPassword, '256', ...options, '--', path, out]);
    return new Uint8Array(readFileSync(out));
  });
}

interface QpdfLabel {
  readonly '/S'?: string;
  readonly '/St'?: number;
  readonly '/P'?: string;
}
interface QpdfHeading {
  readonly title: string;
  readonly destpageposfrom1: number;
  readonly kids: readonly QpdfHeading[];
}

const ROMAN = ['', 'i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii', 'viii', 'ix'];

/** Labels and headings as qpdf reads them; of the numbering styles the decimal one and the first nine of the small Roman. */
export function navigationByQpdf(pdf: Uint8Array) {
  const args = ['--json', '--json-key=pages', '--json-key=outlines'];
  const told = withFile(pdf, (path) => execFileSync('qpdf', [...args, path], { encoding: 'utf8', maxBuffer: 1 << 28 }));
  const read = JSON.parse(told) as { pages: { label: QpdfLabel | null }[]; outlines: QpdfHeading[] };
  const labels = read.pages.map(({ label }) => {
    if (label === null) return '';
    const number = label['/St'] ?? 1;
    const style = label['/S'];
    const said = style === '/D' ? String(number) : style === '/r' ? (ROMAN[number] ?? '?') : '';
    return (label['/P'] ?? '').replace(/^u:/, '') + said;
  });
  const flat = (headings: readonly QpdfHeading[], level: number): { title: string; level: number; page: number }[] =>
    headings.flatMap(({ title, destpageposfrom1, kids }) => [
      { title: title.trim(), level, page: destpageposfrom1 },
      ...flat(kids, level + 1),
    ]);
  return { labels, outline: flat(read.outlines, 1) };
}

/** The middle of each word of each page, in points from the lower left corner. */
export function wordPlaces(pdf: Uint8Array): { word: string; x: number; y: number }[][] {
  const told = withFile(pdf, (path) =>
    execFileSync('pdftotext', ['-bbox', path, '-'], { encoding: 'utf8', maxBuffer: 1 << 28 }),
  );
  return told
    .split(/<page /)
    .slice(1)
    .map((page) => {
      const height = Number(/height="([\d.]+)"/.exec(page)?.[1]);
      const words = page.matchAll(
        /<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">([^<]*)</g,
      );
      return [...words].map(([, left, top, right, bottom, word]) => ({
        word: word as string,
        x: (Number(left) + Number(right)) / 2,
        y: height - (Number(top) + Number(bottom)) / 2,
      }));
    });
}

/** A picture of a page as it stands in the file, and at how many pixels an inch it is printed. */
export interface Embedded {
  readonly page: number;
  readonly png: Buffer;
  readonly dpi: readonly [number, number];
}

/** Every picture of a PDF, in the order of its pages. */
export const embeddedPictures = (pdf: Uint8Array): Embedded[] =>
  withFile(pdf, (path, folder) => {
    const rows = execFileSync('pdfimages', ['-list', path], { encoding: 'utf8' }).trim().split('\n').slice(2);
    execFileSync('pdfimages', ['-png', path, join(folder, 'picture')]);
    return rows.map((row, at) => {
      // page num type width height color comp bpc enc interp object ID x-ppi y-ppi size ratio
      const cells = row.trim().split(/\s+/);
      const png = readFileSync(join(folder, `picture-${String(at).padStart(3, '0')}.png`));
      return { page: Number(cells[0]), png, dpi: [Number(cells[12]), Number(cells[13])] };
    });
  });
