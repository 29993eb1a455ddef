import { SelectionError } from './selection-error';

export type TokenKind =
  'number' | 'word' | 'title' | 'name' | 'comma' | 'colon' | 'hyphen' | 'open' | 'close' | 'times' | 'end';

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

const PIECE = /\s+|(\d+)|([a-z]+)|(["\u201c\u201d][^"\u201c\u201d]*["\u201c\u201d])|([,:\-\u2013\u2014()])/giy;

/** What follows the word "size": "a4", "letter", or a whole PWG 5101.1 name. */
const SIZE_NAME = /\s*([a-z0-9][a-z0-9._-]*)/iy;

/** Longest run of digits read as one number: enough for any page there can be. */
const MAX_DIGITS = 9;

/**
 * The text cut into tokens, ended by one of kind "end". The letter "x" by itself is the repeat sign.
 *
 * @throws SelectionError at the first character that belongs to no token
 */
export function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  const add = (kind: TokenKind, value: string, at: number, length = value.length): void =>
    void tokens.push({ kind, text: value, at, length });
  PIECE.lastIndex = 0;
  while (PIECE.lastIndex < text.length) {
    const at = PIECE.lastIndex;
    const match = PIECE.exec(text);
    if (!match) throw strange(text, at);
    const [whole, digits, letters, quoted, sign] = match;
    if (digits !== undefined) {
      if (digits.length > MAX_DIGITS) {
        throw new SelectionError('this number is too large', at, digits.length, 'a page number', null);
      }
      add('number', digits, at);
    } else if (letters !== undefined) {
      const word = letters.toLowerCase();
      add(word === 'x' ? 'times' : 'word', word, at);
      if (word === 'size') PIECE.lastIndex = sizeName(text, PIECE.lastIndex, add);
    } else if (quoted !== undefined) {
      add('title', quoted.slice(1, -1), at, quoted.length);
    } else if (sign !== undefined) {
      add(PUNCTUATION[sign] as TokenKind, whole, at);
    }
  }
  add('end', '', text.length);
  return tokens;
}

/** Reads the name after "size", where there is one, and says where reading goes on. */
function sizeName(text: string, from: number, add: (kind: TokenKind, value: string, at: number) => void): number {
  SIZE_NAME.lastIndex = from;
  const match = SIZE_NAME.exec(text);
  if (!match) return from;
  const name = match[1] as string;
  add('name', name.toLowerCase(), SIZE_NAME.lastIndex - name.length);
  return SIZE_NAME.lastIndex;
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
