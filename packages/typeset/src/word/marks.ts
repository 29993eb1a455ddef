import { element, type XmlNode } from '../office/tree';

/** What a piece of a text document is for: the text of a section, a head or foot by its part's name, a note, a comment. */
export type PieceMark =
  | { readonly kind: 'section'; readonly at: number }
  | { readonly kind: 'head'; readonly part: string }
  | { readonly kind: 'footnote' | 'endnote'; readonly id: string }
  | { readonly kind: 'comment'; readonly who: string; readonly number: string };

/**
 * What the library knows nothing of is marked in the document that it is given, and found again in what it makes of it: a
 * bookmark's name comes out as the id of an empty element (`browser/lay-pieces.ts` reads it).
 */
export type Mark =
  /** Begins a piece. */
  | { readonly piece: PieceMark }
  /** Of the paragraph in which it stands. */
  | { readonly paragraph: ParagraphMark }
  /** Of the table row in whose first paragraph it stands. */
  | { readonly row: { readonly isHead: boolean; readonly isWhole: boolean } }
  /** The next run is a number that is known once the pages are. */
  | { readonly field: PageField }
  /** Here the page, or the column, ends. */
  | { readonly ends: 'page' | 'column' }
  /** A note's number stands next. */
  | { readonly note: string }
  /** How the next picture stands. */
  | { readonly picture: Readonly<Record<string, string>> }
  /** A place whose page a field asks after. */
  | { readonly place: string };

/** What the library does not make of a paragraph. */
export interface ParagraphMark {
  /** Style of its own. */
  readonly css: Readonly<Record<string, string>>;
  /** Lines so many times as high as the font has them; at least, or just, so many points. */
  readonly lines: { readonly times: number } | { readonly least: number } | { readonly exact: number };
  /** No room between it and its neighbours of the same style. */
  readonly isClose?: boolean;
  readonly tabs?: readonly TabStop[];
  /** Of a heading, from 1. */
  readonly level?: number;
}

export interface PageField {
  readonly shows: 'page' | 'pages' | 'section-pages';
  /** A place, where the page of that is shown and not the field's own. */
  readonly of?: string;
  /** A form of numbers of its own. */
  readonly form?: string;
}

/** A place on a line that a tab leads to, in points from the text's left edge. */
export interface TabStop {
  readonly at: number;
  readonly kind: 'left' | 'right' | 'center' | 'decimal' | 'clear';
  readonly leader: 'dot' | 'line' | null;
}

export const MARK = 'foglio:';

export const mark = (what: Mark): XmlNode =>
  element('w:bookmarkStart', { 'w:id': '0', 'w:name': `${MARK}${JSON.stringify(what)}` });

/** A mark that stands between paragraphs. */
export const markBetween = (what: Mark): XmlNode => element('w:p', {}, [mark(what)]);
