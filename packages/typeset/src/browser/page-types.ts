/** What is used of a page by what runs in the browser: this room knows no browser's types. */
export interface PageRect {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

export interface PageStyles {
  setProperty(name: string, value: string): void;
  getPropertyValue(name: string): string;
}

export interface PageNode {
  textContent: string | null;
  readonly parentElement: PageElement | null;
  compareDocumentPosition(other: PageNode): number;
  contains(other: PageNode): boolean;
  cloneNode(deep: boolean): PageNode;
  remove(): void;
}

export interface PageElement extends PageNode {
  id: string;
  className: string;
  href: string;
  /** Of a cell. */
  rowSpan: number;
  innerHTML: string;
  readonly tagName: string;
  readonly style: PageStyles & Record<string, string>;
  readonly children: Iterable<PageElement> & { readonly length: number };
  readonly firstElementChild: PageElement | null;
  readonly nextElementSibling: PageElement | null;
  readonly previousElementSibling: PageElement | null;
  readonly lastChild: PageNode | null;
  append(...others: (PageNode | string)[]): void;
  prepend(...others: (PageNode | string)[]): void;
  before(...others: (PageNode | string)[]): void;
  after(...others: (PageNode | string)[]): void;
  replaceWith(...others: (PageNode | string)[]): void;
  replaceChildren(...others: (PageNode | string)[]): void;
  closest(selector: string): PageElement | null;
  matches(selector: string): boolean;
  querySelector(selector: string): PageElement | null;
  querySelectorAll(selector: string): Iterable<PageElement>;
  getBoundingClientRect(): PageRect;
  cloneNode(deep: boolean): PageElement;
}

export interface PageRange {
  selectNodeContents(node: PageNode): void;
  setStart(node: PageNode, offset: number): void;
  setEnd(node: PageNode, offset: number): void;
  extractContents(): PageNode;
  setStartAfter(node: PageNode): void;
  setEndBefore(node: PageNode): void;
  setEndAfter(node: PageNode): void;
  getBoundingClientRect(): PageRect;
  getClientRects(): Iterable<PageRect> & { readonly length: number };
}

export interface PageDocument {
  readonly documentElement: PageElement & { readonly clientWidth: number };
  readonly head: PageElement;
  readonly body: PageElement;
  readonly fonts: { readonly ready: Promise<unknown> };
  createElement(name: string): PageElement;
  createRange(): PageRange;
  /** @param what 4: texts alone */
  createTreeWalker(root: PageNode, what: number): { nextNode(): PageNode | null };
  querySelector(selector: string): PageElement | null;
  querySelectorAll(selector: string): Iterable<PageElement>;
}

export interface PageWindow {
  readonly document: PageDocument;
  getComputedStyle(element: PageElement): PageStyles & Record<string, string>;
}
