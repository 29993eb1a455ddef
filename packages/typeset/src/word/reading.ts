import type { Form } from '@foglio/core';
import type { XmlNode } from '../office/tree';
import type { Count } from './left-out';
import type { ListLabels } from './list-labels';
import type { WordPart } from './word-package';
import type { WordStyles } from './word-styles';

/** A note or comment that is referred to, in the order of the text. */
export interface Referred {
  readonly kind: 'footnote' | 'endnote' | 'comment';
  readonly id: string;
  /** What stands for it in the text. */
  readonly number: string;
}

/** What is known, and gathered, while the content of a text document is read. */
export interface Reading {
  readonly styles: WordStyles;
  readonly labels: ListLabels;
  readonly shown: Required<Pick<Form, 'changes' | 'comments'>>;
  readonly referred: Referred[];
  /** Forms in which notes are numbered. */
  readonly noteForms: { readonly footnote: string; readonly endnote: string };
  /** Pictures by the ids under which the library finds them, and their parts. */
  readonly pictures: Map<string, string>;
  /** Names of places that fields ask after. */
  readonly places: ReadonlySet<string>;
  readonly leftOut: Count;
}

/** One part as it is read. */
export interface Story {
  readonly reading: Reading;
  readonly part: WordPart;
  /** Of a head or foot: where pictures may be set anywhere on the page. */
  readonly isHead: boolean;
  /** The number of the note that it is the text of. */
  readonly number?: string;
  /** Fields that are begun, the innermost last; they go on over paragraphs. */
  readonly fields: OpenField[];
  /** Where the text of its page begins, and how wide it is, in points. */
  readonly page: { left: number; top: number; width: number; pageWidth: number; headAt: number };
  /** Told where a section ends, with its properties; what stands between paragraphs because of it. */
  readonly endSection?: (properties: XmlNode) => XmlNode[];
}

/** A field of which the beginning was read (ISO/IEC 29500-1, 17.16.18). */
export interface OpenField {
  instruction: string;
  /** Whether what stands there is what it showed last. */
  isResult: boolean;
  /** Whether it is worked out anew, and what it showed last is not. */
  isLive: boolean;
  /** Of a box in a form. */
  readonly isTicked: boolean;
}
