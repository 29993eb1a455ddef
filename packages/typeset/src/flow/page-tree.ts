import { createRequire } from 'node:module';
import { HOME } from '../browser/address';

/**
 * A web page as its parts. What is used of it is written down here, since the library's own types bring those of a browser
 * into every room.
 */
export interface PageElement {
  readonly outerHTML: string;
  innerHTML: string;
  textContent: string | null;
  className: string;
  getAttribute(name: string): string | null;
  querySelectorAll(selector: string): Iterable<PageElement>;
  remove(): void;
  after(other: PageElement): void;
  append(other: PageElement): void;
  prepend(other: PageElement): void;
}

export interface PageTree {
  readonly documentElement: PageElement;
  readonly head: PageElement;
  readonly body: PageElement;
  querySelector(selector: string): PageElement | null;
  querySelectorAll(selector: string): Iterable<PageElement>;
  createElement(name: string): PageElement;
}

/** What is read of a page, without all that stands around it. */
export interface Article {
  readonly title?: string | null;
  readonly byline?: string | null;
  readonly siteName?: string | null;
  readonly content?: string | null;
}

interface DomLibrary {
  readonly JSDOM: new (html: string, options: object) => { readonly window: { readonly document: PageTree } };
}

interface ReadingLibrary {
  readonly Readability: new (tree: PageTree) => { parse(): Article | null };
}

const require = createRequire(import.meta.url);

/** Reads a page; its scripts do not run, and nothing is fetched. */
export const readPage = (html: string): PageTree =>
  new (require('jsdom') as DomLibrary).JSDOM(html, { url: HOME }).window.document;

/** The article of a page, which is changed by it; null where none can be told from the rest. */
export const articleOf = (page: PageTree): Article | null =>
  new (require('@mozilla/readability') as ReadingLibrary).Readability(page).parse();
