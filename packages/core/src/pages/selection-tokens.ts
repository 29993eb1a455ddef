import { SelectionError } from './selection-error';

export type TokenKind = 'number' | 'word' | 'comma' | 'hyphen' | 'open' | 'close' | 'times' | 'end';

export interface Token {
  readonly kind: TokenKind;
  readonly text: string;
  /** Offset in the text, from 0. */
  readonly at: number;
}

const WORDS = ['all', 'last', 'odd', 'even', 'portrait', 'landscape', 'but'];

/** An en dash or em dash is what a word processor makes of a typed hyphen, so it is read as one. */
const PUNCTUATION: Record<string, TokenKind> = {
  ',': 'comma',
  '-': 'hyphen',
  '\u2013': 'hyphen',
  '\u2014': 'hyphen',
  '(': 'open',
  ')': 'close',
};

const PIECE = /\s+|(\d+)|([a-z]+)|([,\-\u2013\u2014()])/giy;

/** Longest run of digits read as one number: enough for any page there can be. */
const MAX_DIGITS = 9;

/**
 * The text cut into tokens, ended by one of kind "end". A word beginning with "x" before a number is the repeat sign.
 *
 * @throws SelectionError at the first character that belongs to no token
 */
export function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  PIECE.lastIndex = 0;
  while (PIECE.lastIndex < text.length) {
    const at = PIECE.lastIndex;
    const match = PIECE.exec(text);
    if (!match) throw strange(text, at);
    const [whole, digits, letters, sign] = match;
    if (digits !== undefined) {
      if (digits.length > MAX_DIGITS) {
        throw new SelectionError('this number is too large', at, digits.length, 'a page number', null);
      }
      tokens.push({ kind: 'number', text: digits, at });
    } else if (letters !== undefined) {
      const word = letters.toLowerCase();
      if (word === 'x') tokens.push({ kind: 'times', text: 'x', at });
      else if (WORDS.includes(word)) tokens.push({ kind: 'word', text: word, at });
      else throw unknownWord(letters, at);
    } else if (sign !== undefined) {
      tokens.push({ kind: PUNCTUATION[sign] as TokenKind, text: whole, at });
    }
  }
  tokens.push({ kind: 'end', text: '', at: text.length });
  return tokens;
}

function strange(text: string, at: number): SelectionError {
  const character = String.fromCodePoint(text.codePointAt(at) as number);
  const repair = character === ';' ? ',' : '';
  return new SelectionError(
    `"${character}" has no meaning here`,
    at,
    character.length,
    'page numbers, commas and hyphens, as in 1-4, 7',
    repair,
  );
}

function unknownWord(letters: string, at: number): SelectionError {
  const word = letters.toLowerCase();
  const near = [...WORDS].find((known) => known.startsWith(word) || word.startsWith(known)) ?? null;
  return new SelectionError(`"${letters}" is not a word of the selection`, at, letters.length, WORDS.join(', '), near);
}
