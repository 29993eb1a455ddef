import { SelectionError } from './selection-error';
import { tokenize, type Token, type TokenKind } from './selection-tokens';

/** A page of the text: a number or "last", with its place for messages. */
export interface PageRef {
  readonly page: number | 'last';
  readonly at: number;
  readonly length: number;
}

export type Filter = 'odd' | 'even' | 'portrait' | 'landscape';

export type Term =
  | { readonly kind: 'all' }
  | { readonly kind: 'range'; readonly from: PageRef | null; readonly to: PageRef | null }
  | { readonly kind: 'group'; readonly items: readonly Item[] };

export type Step =
  | { readonly kind: 'times'; readonly count: number; readonly at: number }
  | { readonly kind: 'filter'; readonly filter: Filter };

/** A term, what is done to it from left to right, and the terms left out of it. */
export interface Item {
  readonly term: Term;
  readonly steps: readonly Step[];
  readonly but: readonly Term[];
}

const MAX_CHARACTERS = 10_000;
const MAX_NESTING = 20;
const MAX_TIMES = 9999;

const A_PAGE = 'a page number, "last" or "all"';

/**
 * Reads the selection language (model, Choosing pages) into items; whether the pages exist is asked later, against a
 * document, so that a text is read once for many.
 *
 * @throws SelectionError
 */
export function parseSelection(text: string): readonly Item[] {
  if (text.length > MAX_CHARACTERS) {
    throw new SelectionError(
      `the selection is ${text.length} characters long; ${MAX_CHARACTERS} is the most`,
      MAX_CHARACTERS,
      text.length - MAX_CHARACTERS,
      'a shorter text',
      null,
    );
  }
  const reader = new Reader(tokenize(text));
  const items = reader.selection(0);
  reader.end();
  return items;
}

class Reader {
  private next = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  /** Items to the closing parenthesis or the end. `but` takes every term after it, so nothing follows it. */
  selection(depth: number): Item[] {
    const items: Item[] = [];
    do items.push(this.item(depth));
    while (this.take('comma'));
    return items;
  }

  end(): void {
    const token = this.peek();
    if (token.kind === 'end') return;
    if (token.kind === 'close') throw this.error('this parenthesis was never opened', token, 'a comma', '');
    const repair = token.kind === 'number' || token.kind === 'word' ? `, ${token.text}` : '';
    throw this.error(`"${token.text}" cannot follow here`, token, 'a comma before it', repair);
  }

  private item(depth: number): Item {
    const term = this.term(depth);
    const steps: Step[] = [];
    for (;;) {
      const token = this.peek();
      if (token.kind === 'times') steps.push(this.times());
      else if (token.kind === 'word' && isFilter(token.text)) {
        this.next += 1;
        steps.push({ kind: 'filter', filter: token.text });
      } else break;
    }
    const but: Term[] = [];
    if (this.takeWord('but')) {
      do but.push(this.term(depth));
      while (this.take('comma'));
    }
    return { term, steps, but };
  }

  private times(): Step {
    const sign = this.tokens[this.next++] as Token;
    const token = this.peek();
    if (token.kind !== 'number') throw this.error('"x" needs a count', token, 'how many times, as in 1 x4', null);
    this.next += 1;
    const count = Number(token.text);
    if (count < 1 || count > MAX_TIMES) {
      const repair = count < 1 ? '1' : String(MAX_TIMES);
      throw this.error(`"x${token.text}" is not possible`, token, `a count from 1 to ${MAX_TIMES}`, repair);
    }
    return { kind: 'times', count, at: sign.at };
  }

  private term(depth: number): Term {
    const token = this.peek();
    if (this.take('open')) {
      if (depth >= MAX_NESTING) {
        throw this.error('too many parentheses inside each other', token, `${MAX_NESTING} at most`, null);
      }
      const items = this.selection(depth + 1);
      const close = this.peek();
      if (!this.take('close')) throw this.error('a parenthesis is not closed', close, '")"', ')');
      return { kind: 'group', items };
    }
    if (this.takeWord('all')) return { kind: 'all' };
    // "odd" and "even" alone are what people type for "all odd" and "all even".
    if (token.kind === 'word' && isFilter(token.text)) {
      this.next += 1;
      const steps = [{ kind: 'filter' as const, filter: token.text }];
      return { kind: 'group', items: [{ term: { kind: 'all' }, steps, but: [] }] };
    }
    if (this.take('hyphen')) {
      const to = this.page();
      if (!to) throw this.error('a range lacks its last page', this.peek(), A_PAGE, null);
      return { kind: 'range', from: null, to };
    }
    const from = this.page();
    if (!from) {
      const wordy = token.kind === 'end' ? 'a page is missing at the end' : `"${token.text}" is not a page`;
      throw this.error(wordy, token, A_PAGE, token.kind === 'comma' ? '' : null);
    }
    if (!this.take('hyphen')) return { kind: 'range', from, to: from };
    return { kind: 'range', from, to: this.page() };
  }

  private page(): PageRef | null {
    const token = this.peek();
    if (this.takeWord('last')) return { page: 'last', at: token.at, length: token.text.length };
    if (!this.take('number')) return null;
    return { page: Number(token.text), at: token.at, length: token.text.length };
  }

  private peek(): Token {
    return this.tokens[this.next] as Token;
  }

  private take(kind: TokenKind): boolean {
    if (this.peek().kind !== kind) return false;
    this.next += 1;
    return true;
  }

  private takeWord(word: string): boolean {
    const token = this.peek();
    return token.kind === 'word' && token.text === word ? this.take('word') : false;
  }

  private error(message: string, token: Token, expected: string, repair: string | null): SelectionError {
    return new SelectionError(message, token.at, token.text.length, expected, repair);
  }
}

const isFilter = (word: string): word is Filter =>
  word === 'odd' || word === 'even' || word === 'portrait' || word === 'landscape';
