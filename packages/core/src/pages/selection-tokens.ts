import { SelectionError } from './selection-error';

export type TokenKind =
  | 'number'
  | 'word'
  | 'title'
  | 'name'
  | 'comma'
  | 'colon'
  | 'hyphen'
  | 'open'
  | 'close'
  | 'times'
  | 'end';

export interface Token {
  readonly kind: TokenKind;
  /** Words in lower case; a title without its quotation marks. */
  readonly text: string;
  /** Offset in the text, from 0, and how many characters it takes there. */
  readonly at: number;
  readonly length: number;
}

/** An en dash or em dash is what a word processor makes of a typed hyphen, so it is read as one. */
const PUNCTUATION: Record<string, TokenKind> = {
  ',': 'comma',
  ':': 'colon',
  '-': 'hyphen',
  '\u2013': 'hyphen',
  '\u2014': 'hyphen',
  '(': 'open',
  ')': 'close',
};

/** Words that people write for a sign. */
const SAID: Record<string, TokenKind> = { x: 'times', to: 'hyphen', and: 'comma' };

const SPACE = /\s/;
const QUOTES = '"\u201c\u201d';
/** What follows the word "size": "a4", "letter", or a whole PWG 5101.1 name. */
const SIZE_NAME = /\s*([a-z0-9][a-z0-9._-]*)/iy;

/** Longest run of digits read as one number: enough for any page there can be. */
const MAX_DIGITS = 9;

/**
 * The text cut into tokens, ended by one of kind "end". The letter "x" by itself is the repeat sign, "to" a hyphen, "and" a
 * comma.
 *
 * @throws SelectionError at the first character that belongs to no token
 */
export function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  const add = (kind: TokenKind, value: string, from: number, length = value.length): void => {
    tokens.push({ kind, text: value, at: from, length });
    at = from + length;
  };
  while (at < text.length) {
    const code = text.charCodeAt(at);
    const character = text.charAt(at);
    if (isDigit(code)) {
      const digits = text.slice(at, endOf(text, at, isDigit));
      if (digits.length > MAX_DIGITS) {
        throw new SelectionError('this number is too large', at, digits.length, 'a page number', null);
      }
      add('number', digits, at);
    } else if (isLetter(code)) {
      const word = text.slice(at, endOf(text, at, isLetter)).toLowerCase();
      add(Object.hasOwn(SAID, word) ? (SAID[word] as TokenKind) : 'word', word, at);
      if (word === 'size') sizeName(text, at, add);
    } else if (PUNCTUATION[character]) {
      add(PUNCTUATION[character], character, at);
    } else if (QUOTES.includes(character)) {
      const end = endOf(text, at + 1, isNoQuote) + 1;
      if (end > text.length) throw strange(text, at);
      add('title', text.slice(at + 1, end - 1), at, end - at);
    } else if (SPACE.test(character)) at += 1;
    else throw strange(text, at);
  }
  add('end', '', text.length);
  return tokens;
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57;
/** Of either case: in ASCII the two are a bit apart. */
const isLetter = (code: number): boolean => (code | 32) >= 97 && (code | 32) <= 122;
const isNoQuote = (code: number): boolean => code !== 0x22 && code !== 0x201c && code !== 0x201d;

/** Where characters of a kind end, reading on from a place. */
function endOf(text: string, from: number, is: (code: number) => boolean): number {
  let end = from;
  while (end < text.length && is(text.charCodeAt(end))) end += 1;
  return end;
}

/** Reads the name after "size", where there is one. */
function sizeName(text: string, from: number, add: (kind: TokenKind, value: string, at: number) => void): void {
  SIZE_NAME.lastIndex = from;
  const name = SIZE_NAME.exec(text)?.[1];
  if (name !== undefined) add('name', name.toLowerCase(), SIZE_NAME.lastIndex - name.length);
}

function strange(text: string, at: number): SelectionError {
  const character = String.fromCodePoint(text.codePointAt(at) as number);
  if (/["\u201c\u201d]/.test(character)) {
    const message = 'this quotation mark is not closed';
    return new SelectionError(message, at, text.length - at, 'a heading in quotation marks', `${text.slice(at)}"`);
  }
  const repair = character === ';' ? ',' : '';
  return new SelectionError(
    `"${character}" has no meaning here`,
    at,
    character.length,
    'page numbers, commas and hyphens, as in 1-4, 7',
    repair,
  );
}
