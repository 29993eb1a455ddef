import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { completePrinted, pagesOfPlaces } from '@foglio/pdf';
import type { Browser, Page } from 'playwright-core';
import { FIELD_FORMS } from '../word/fields';
import { sayNumber } from '../word/number-forms';
import type { WordDocument } from '../word/read-word';
import type { HeadKind, WordSection } from '../word/word-section';
import { arrangePieces, leaveBlank, measureHeads, settlePages, type PlaceInPage } from './arrange-word';
import { fillFields, layHeads, type HeadedPage, type NumbersInPage } from './head-word';
import { placeFootNotes } from './foot-notes';
import { makePieces } from './lay-word';
import { fontFaces, hasAlike } from './fonts';
import {
  inPage,
  inTime,
  LOADING_MS,
  openPage,
  PRINTING_MS,
  type OpenPage,
  type PrintedPage,
  type Within,
} from './print-page';
import { setLines, setTabs } from './set-word';

const require = createRequire(import.meta.url);

/** What our own functions need there: compilers give them their names by one that is not sent with them. */
const NAMED = 'globalThis.__name ??= (named) => named;';

/** What runs in the page to make paragraphs, tables and pictures of the file. */
let library: string | undefined;
const libraries = (): string =>
  (library ??= [
    NAMED,
    ...['jszip/dist/jszip.min.js', 'docx-preview'].map((name) => readFileSync(require.resolve(name), 'utf8')),
  ].join('\n'));

/** No script of a document's own runs: what runs is put there from outside. */
const EMPTY = (style: string): string =>
  `<!doctype html><html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="script-src 'none'; frame-src 'none'; object-src 'none'"><style>${style}</style></head><body></body></html>`;

const STYLE =
  'html,body{margin:0}.foglio-heads{position:absolute;visibility:hidden;left:0;top:0}.foglio-head,.foglio-page>div,.foglio-notes>div{display:flow-root}' +
  '.foglio-notes{margin-top:12pt;padding-top:4pt;position:relative}.foglio-notes::before{content:"";position:absolute;left:0;top:0;width:144pt;border-top:.5pt solid #000}';

/** Cuts of fonts that most letters and reports are in: a page that waits for work has them ready. */
const LIKELY = ['Calibri', 'Arial', 'Times New Roman'].flatMap((family) =>
  ['', 'bold ', 'italic '].map((cut) => `${cut}12px "${family}"`),
);

/**
 * Opens a page with all that makes a text document in it: a third of the time that a short one takes.
 *
 * @param isAhead before there is a document: the fonts that it is likely to want are fetched too
 */
export async function openWordPage(browser: Browser, isAhead: boolean): Promise<OpenPage> {
  const opened = await openPage(browser, { html: EMPTY(fontFaces() + STYLE), width: 800, runs: true });
  try {
    await inTime(opened.page.evaluate(libraries()), LOADING_MS);
    if (isAhead) await inTime(opened.page.evaluate(loadFonts, LIKELY), LOADING_MS);
    return opened;
  } catch (error) {
    await opened.close();
    throw error;
  }
}

/** Runs in the browser. */
async function loadFonts(fonts: readonly string[]): Promise<void> {
  const { document } = globalThis as unknown as { document: { fonts: { load(font: string): Promise<unknown> } } };
  await Promise.all(fonts.map((font) => document.fonts.load(font)));
}

/**
 * Has a browser lay a text document out, and then what stands around its text on every page, once the pages are known.
 *
 * @param opening a page that nothing else is laid out in
 * @throws PdfError `too-much` where it takes too long
 */
export function printWord(within: Within, word: WordDocument, opening: Promise<OpenPage>): Promise<PrintedPage> {
  return inPage(within, opening, async (page, refused) => {
    const step = <T>(work: Promise<T>, ms = LOADING_MS): Promise<T> => inTime(work, ms);
    const print = async (): Promise<Uint8Array> =>
      new Uint8Array(await step(page.pdf({ preferCSSPageSize: true, printBackground: true }), PRINTING_MS));
    const file = Buffer.from(word.file).toString('base64');
    await step(page.evaluate(makePieces, { file, hyphenates: word.hyphenates }));
    const sections = word.sections.map((section, at) => ({
      width: textWidth(section),
      room: section.margins.right - 12,
      columns: section.columns,
      columnGap: section.columnGap,
      hasColumnLine: section.hasColumnLine,
      parts: partsOf(section),
      breakBefore: at === 0 ? 'auto' : BREAKS[section.begins],
      page: `s${pageOwner(word.sections, at)}`,
    }));
    await step(page.evaluate(arrangePieces, { sections, titles: { comments: 'Comments' } }));
    await step(page.evaluate('document.fonts.ready.then(() => undefined)'));
    const { tabEvery } = word;
    const { fitted, fonts } = await step(page.evaluate(setLines, undefined));
    await step(page.evaluate(setTabs, { tabEvery, within: 'body' }));
    const rooms = await roomsOf(page, word.sections);
    const forNotes = word.sections.map(({ height, begins }, at) => ({
      page: height - rooms[at]!.top - rooms[at]!.bottom,
      spacer: rooms[at]!.spacer,
      isShared: (at > 0 && begins === 'here') || word.sections[at + 1]?.begins === 'here',
    }));
    await step(page.evaluate(placeFootNotes, forNotes));
    const css = word.sections.map((section, at) => cssOf(section, rooms[at]!, `s${at}`, word.mirrors)).join('\n');
    const spacers = rooms.map(({ spacer }) => spacer);
    const places = await step(page.evaluate(settlePages, { css, spacers }));
    const printNumbered = async (): Promise<readonly [Uint8Array, Numbered]> => {
      const printed = await print();
      return [printed, numberPages(word, await pagesOfPlaces(printed))];
    };
    let [bytes, numbered] = await printNumbered();
    // A browser leaves no page blank, so that what begins on the other side of a sheet is put there by one.
    for (let at = outOfPlace(word, numbered); at !== null; at = outOfPlace(word, numbered, at)) {
      await step(page.evaluate(leaveBlank, at));
      [bytes, numbered] = await printNumbered();
    }
    if (await step(fill(page, places, numbered))) {
      // What a field shows may move what comes after it.
      await step(page.evaluate(setTabs, { tabEvery, within: '.foglio-section' }));
      [bytes, numbered] = await printNumbered();
    }
    const headed = numbered.pages.map((one) => headedPage(word, one));
    let under: Uint8Array | null = null;
    if (headed.some(({ head, foot, isFramed }) => head !== null || foot !== null || isFramed)) {
      await step(page.evaluate(layHeads, headed));
      await step(page.evaluate(setTabs, { tabEvery, within: '.foglio-page' }));
      under = await print();
    }
    const headings = places.filter(({ level }) => level > 0);
    return {
      bytes: await completePrinted(bytes, { headings, under }),
      refused: [...refused],
      fitted,
      otherFonts: fonts.filter((name) => !hasAlike(name) && !word.fonts.includes(name)),
    };
  });
}

const BREAKS: Readonly<Record<WordSection['begins'], string>> = {
  page: 'page',
  odd: 'page',
  even: 'page',
  here: 'auto',
};

const textWidth = ({ width, margins }: WordSection): number => width - margins.left - margins.right;

const partsOf = ({ heads, feet }: WordSection): string[] => [...Object.values(heads), ...Object.values(feet)];

/** A section that begins on the page of the one before it, and is as wide, is on pages of that one. */
function pageOwner(sections: readonly WordSection[], at: number): number {
  const [section, before] = [sections[at]!, sections[at - 1]];
  const goesOn =
    before && section.begins === 'here' && section.width === before.width && section.height === before.height;
  return goesOn ? pageOwner(sections, at - 1) : at;
}

/** Room that the text of a section leaves at its edges, in points. */
interface Room {
  readonly top: number;
  readonly bottom: number;
  /** At the beginning of its first page besides. */
  readonly spacer: number;
}

/** A head that is higher than its margin pushes the text down (ISO/IEC 29500-1, 17.6.11). */
async function roomsOf(page: Page, sections: readonly WordSection[]): Promise<Room[]> {
  const asked = sections.flatMap((section) => partsOf(section).map((part) => ({ part, width: textWidth(section) })));
  const heights = await inTime(page.evaluate(measureHeads, asked), LOADING_MS);
  return sections.map((section) => {
    const { margins, headAt, footAt, heads, feet, hasFirst } = section;
    const heightOf = (part: string | undefined): number => {
      const at = asked.findIndex((one) => one.part === part && one.width === textWidth(section));
      return at < 0 ? 0 : heights[at]!;
    };
    const highest = (parts: WordSection['heads'], kinds: readonly HeadKind[]): number =>
      Math.max(0, ...kinds.map((kind) => heightOf(parts[kind])));
    const most = section.height / 3;
    const top = Math.max(margins.top, Math.min(most, headAt + highest(heads, ['default', 'even'])));
    const first = hasFirst ? Math.min(most, headAt + highest(heads, ['first'])) : 0;
    const ofFeet: HeadKind[] = hasFirst ? ['default', 'even', 'first'] : ['default', 'even'];
    return {
      top,
      bottom: Math.max(margins.bottom, Math.min(most, footAt + highest(feet, ofFeet))),
      spacer: Math.max(0, first - top),
    };
  });
}

function cssOf({ width, height, margins }: WordSection, { top, bottom }: Room, name: string, mirrors: boolean): string {
  const { left, right } = margins;
  const size = `size:${width}pt ${height}pt;margin:${top}pt ${right}pt ${bottom}pt ${left}pt`;
  const mirrored = mirrors ? `@page ${name}:left{margin-left:${right}pt;margin-right:${left}pt}` : '';
  return `@page ${name}{${size}}${mirrored}@page ${name}h{size:${width}pt ${height}pt;margin:0}`;
}

/** A page, and what it is of. */
interface NumberedPage {
  readonly section: number;
  /** Left so that a section begins on the other side of a sheet. */
  readonly isBlank: boolean;
  readonly isFirst: boolean;
  readonly isEven: boolean;
  readonly numbers: NumbersInPage;
}

interface Numbered {
  readonly pages: readonly NumberedPage[];
  /** Pages of named places, from 0. */
  readonly places: ReadonlyMap<string, number>;
}

function numberPages(
  { sections }: WordDocument,
  { pages, places }: { readonly pages: number; readonly places: ReadonlyMap<string, number> },
): Numbered {
  const starts = sections.map((_, at) => places.get(`foglio-section:${at}`) ?? 0);
  const owners = Array.from({ length: pages }, (_, page) => {
    // The one whose text begins the page: one that begins further down on it comes into its own on the next.
    const own = starts.findLastIndex(
      (start, at) => start < page || (start === page && (at === 0 || sections[at]!.begins !== 'here')),
    );
    return Math.max(0, own);
  });
  const blank = new Set(sections.flatMap((_, at) => places.get(`foglio-blank:${at}`) ?? []));
  let number = 0;
  const counted = owners.map((section, page) => {
    const { startsAt } = sections[section]!;
    const isFirst = owners[page - 1] !== section;
    number = isFirst && startsAt !== null ? startsAt : number + 1;
    return { section, isFirst, number };
  });
  return {
    places,
    pages: counted.map(({ section, isFirst, number: shown }, page) => ({
      section,
      isBlank: blank.has(page),
      isFirst,
      isEven: shown % 2 === 0,
      numbers: {
        page: {
          '': sayNumber(shown, sections[section]!.numberForm),
          ...Object.fromEntries(FIELD_FORMS.map((form) => [form, sayNumber(shown, form)])),
        },
        pages: String(pages),
        sectionPages: String(owners.filter((one) => one === section).length),
      },
    })),
  };
}

/**
 * The next section that does not begin on the side of a sheet on which it has to.
 *
 * @param after one that was seen to
 */
function outOfPlace({ sections }: WordDocument, { places }: Numbered, after = 0): number | null {
  const found = sections.findIndex(({ begins }, at) => {
    const page = places.get(`foglio-section:${at}`);
    if (at <= after || page === undefined) return false;
    return begins === 'odd' ? page % 2 === 1 : begins === 'even' && page % 2 === 0;
  });
  return found < 0 ? null : found;
}

/** Fills fields of the text. @returns whether any changed */
async function fill(page: Page, named: readonly PlaceInPage[], { pages, places }: Numbered): Promise<boolean> {
  const numbersOf = (name: string): NumbersInPage => pages[places.get(name) ?? 0]!.numbers;
  const own = named.filter(({ name }) => name.startsWith('foglio-field:'));
  if (own.length === 0) return false;
  const asked = named.filter(({ name }) => name.startsWith('foglio-asked:'));
  return page.evaluate(fillFields, {
    numbers: own.map(({ name }) => numbersOf(name)),
    places: Object.fromEntries(asked.map(({ name }) => [name.slice('foglio-asked:'.length), numbersOf(name)])),
  });
}

function headedPage(word: WordDocument, { section: at, isFirst, isEven, isBlank, numbers }: NumberedPage): HeadedPage {
  const section = word.sections[at]!;
  const { width, height, margins, headAt, footAt, heads, feet, hasFirst, isFramed } = section;
  const kind: HeadKind = isFirst && hasFirst ? 'first' : isEven && word.hasEvenHeads ? 'even' : 'default';
  return {
    name: `s${pageOwner(word.sections, at)}h`,
    width,
    height,
    left: word.mirrors && isEven ? margins.right : margins.left,
    textWidth: textWidth(section),
    headAt,
    footAt,
    head: isBlank ? null : (heads[kind] ?? null),
    foot: isBlank ? null : (feet[kind] ?? null),
    isFramed,
    numbers,
  };
}
