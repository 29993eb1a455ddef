import type { Browser, Page, Route } from 'playwright-core';
import { completePrinted, patience, tooMuch, type NamedHeading } from '@foglio/pdf';
import { HOME } from './address';
import { besideAt, type AllBeside } from './beside';
import { fontFile } from './fonts';

/** A document as a browser lays it out. */
export interface WebDocument {
  readonly html: string;
  /** Whether it is laid out as for a screen. */
  readonly media?: 'screen' | 'print';
  readonly backgrounds?: boolean;
  /** CSS pixels that its text has across, for what is measured before it is printed. */
  readonly width: number;
  /** Wide tables are made smaller until they fit. */
  readonly fitsTables?: boolean;
  /** Where it is, for what it asks for from there; nobody answers for it elsewhere. */
  readonly address?: string;
  /** What it shows and has with it. */
  readonly beside?: AllBeside;
}

export interface PrintedPage {
  readonly bytes: Uint8Array;
  /** What it asked for and did not get, by address. */
  readonly refused: readonly string[];
  /** Tables that were made smaller. */
  readonly fitted: number;
  /** Fonts of a text document in whose place stand others of other widths. */
  readonly otherFonts?: readonly string[];
}

/** A document that has not come to rest by then never does, in milliseconds. */
export const LOADING_MS = 20_000;

/** Pages of a document are drawn at most so long. */
export const PRINTING_MS = 40_000;

/**
 * Has a browser lay a document out. Its scripts do not run, and all it can ask for are our fonts: no network, no files.
 *
 * @throws PdfError `too-much` where it takes too long
 */
export function printPage(within: Within, document: WebDocument): Promise<PrintedPage> {
  const { backgrounds = false, fitsTables = false } = document;
  return inPage(within, openPage(within.browser, document), async (page, refused) => {
    const fitted = fitsTables ? await inTime(page.evaluate(fitTables), LOADING_MS) : 0;
    const headings = await inTime(page.evaluate(nameHeadings), LOADING_MS);
    // Its own outline needs tags, which make a large table twenty times larger and slower.
    const bytes = await inTime(page.pdf({ preferCSSPageSize: true, printBackground: backgrounds }), PRINTING_MS);
    return { bytes: await completePrinted(new Uint8Array(bytes), { headings }), refused: [...refused], fitted };
  });
}

/** A browser, and whether anybody still waits for what it does. */
export interface Within {
  readonly browser: Browser;
  readonly given: AbortSignal;
}

/** What a page of the browser begins with. */
interface Beginning {
  readonly html: string;
  /** CSS pixels. */
  readonly width: number;
  readonly media?: 'screen' | 'print';
  readonly address?: string;
  readonly beside?: AllBeside;
  /** Whether what is put there from outside may wait for something; scripts of its own never run. */
  readonly runs?: boolean;
}

/** A page of the browser in a context of its own. */
export interface OpenPage {
  readonly page: Page;
  /** What it asked for and did not get. */
  readonly refused: ReadonlySet<string>;
  readonly close: () => Promise<void>;
}

/** Opens a page of a browser. @throws PdfError `too-much` where it never comes to rest */
export async function openPage(
  browser: Browser,
  { html, width, media = 'print', address = HOME, beside = new Map(), runs = false }: Beginning,
): Promise<OpenPage> {
  const context = await browser.newContext({
    javaScriptEnabled: runs,
    offline: true,
    serviceWorkers: 'block',
    acceptDownloads: false,
    viewport: { width, height: Math.round(width * Math.SQRT2) },
  });
  const close = (): Promise<void> => context.close().catch(() => undefined);
  const refused = new Set<string>();
  try {
    const page = await context.newPage();
    await page.route('**/*', (route) => answer(route, { html, address, beside, refused }));
    await page.emulateMedia({ media });
    await inTime(page.goto(address, { waitUntil: 'load', timeout: 0 }), LOADING_MS);
    return { page, refused, close };
  } catch (error) {
    await close();
    throw error;
  }
}

/**
 * Does what is to be done in a page, and closes it.
 *
 * @param use is told what it asks for and does not get, as it asks
 * @throws PdfError `too-much`
 */
export async function inPage<T>(
  { browser, given }: Within,
  opening: Promise<OpenPage>,
  use: (page: Page, refused: ReadonlySet<string>) => Promise<T>,
): Promise<T> {
  const close = (): void => void opening.then((opened) => opened.close()).catch(() => undefined);
  given.addEventListener('abort', close);
  try {
    const { page, refused } = await opening;
    return await use(page, refused);
  } catch (error) {
    // It is ended where a document takes more than it may.
    if (!browser.isConnected()) throw tooMuch('memory');
    throw error;
  } finally {
    given.removeEventListener('abort', close);
    close();
  }
}

interface Answers {
  readonly html: string;
  readonly address: string;
  readonly beside: AllBeside;
  readonly refused: Set<string>;
}

async function answer(route: Route, { html, address, beside, refused }: Answers): Promise<void> {
  const request = route.request();
  const url = request.url();
  const isOwn = request.isNavigationRequest() && request.frame().parentFrame() === null;
  if (isOwn && url === address) return route.fulfill({ contentType: 'text/html; charset=utf-8', body: html });
  const held = isOwn ? undefined : besideAt(url, beside);
  if (held) return route.fulfill({ contentType: held.type, body: Buffer.from(held.bytes) });
  // A page that wants to be another one stays what it is (HTTP, RFC 9110, 15.3.5: no content, nowhere to go).
  if (request.isNavigationRequest()) {
    refused.add(url);
    return route.fulfill({ status: 204 });
  }
  const font = fontFile(url);
  if (font) return route.fulfill({ contentType: 'font/woff2', body: font });
  if (!url.endsWith('/favicon.ico')) refused.add(url);
  return route.abort();
}

/** Between two looks at whether a document has had its time, in milliseconds. */
const LOOK_EVERY_MS = 200;

/** A document that never ends is given up; what it does is ended with its context. The browser is one that this process started. */
export async function inTime<T>(work: Promise<T>, ms: number): Promise<T> {
  const isOver = patience(ms, process.pid);
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setInterval(() => isOver() && reject(tooMuch('time')), LOOK_EVERY_MS);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearInterval(timer);
    work.catch(() => undefined);
  }
}

/** Runs in the browser: what is wider than the page is broken into lines, then made smaller. @returns how many tables were */
function fitTables(): number {
  const { document } = globalThis as unknown as { document: PageDocument };
  const room = document.documentElement.clientWidth;
  let fitted = 0;
  for (const table of document.querySelectorAll('table, pre')) {
    const most = room - table.getBoundingClientRect().left;
    if (table.getBoundingClientRect().width <= most + 1) continue;
    fitted += 1;
    // What may be broken into lines is, before anything is made smaller.
    for (const cell of table.querySelectorAll('th, td')) cell.style.whiteSpace = 'normal';
    const { width } = table.getBoundingClientRect();
    if (width > most + 1) table.style.zoom = String(Math.max(0.2, most / width));
  }
  return fitted;
}

/**
 * Runs in the browser: gives every heading a named place, and a link to it that nobody sees, since a browser writes down the places
 * that links lead to.
 */
function nameHeadings(): NamedHeading[] {
  const { document } = globalThis as unknown as { document: PageDocument };
  const links = document.createElement('nav');
  links.style.display = 'none';
  const found: NamedHeading[] = [];
  for (const heading of document.querySelectorAll('h1, h2, h3, h4, h5, h6')) {
    const title = (heading.textContent ?? '').replace(/\s+/g, ' ').trim().slice(0, 255);
    const { width, height } = heading.getBoundingClientRect();
    if (title === '' || width === 0 || height === 0) continue;
    // A place of ours: names of the page's own may be given twice.
    const name = `foglio-heading-${found.length + 1}`;
    const place = document.createElement('a');
    place.id = name;
    // What takes no room at all is not written down.
    place.style.display = 'inline-block';
    place.style.height = '1px';
    heading.prepend(place);
    const link = document.createElement('a');
    link.href = `#${name}`;
    links.append(link);
    found.push({ name, title, level: Number(heading.tagName.slice(1)) });
  }
  document.body.append(links);
  return found;
}

/** What is used of a page there: this room knows no browser's types. */
interface PageElement {
  readonly style: { zoom: string; display: string; height: string; whiteSpace: string };
  readonly tagName: string;
  readonly textContent: string | null;
  id: string;
  href: string;
  append(other: PageElement): void;
  prepend(other: PageElement): void;
  querySelectorAll(selector: string): Iterable<PageElement>;
  getBoundingClientRect(): { readonly left: number; readonly width: number; readonly height: number };
}

interface PageDocument {
  readonly documentElement: { readonly clientWidth: number };
  readonly body: PageElement;
  createElement(name: string): PageElement;
  querySelectorAll(selector: string): Iterable<PageElement>;
}
