import { SelectionError } from './selection-error';
import { tokenize, type Token, type TokenKind } from './selection-tokens';

/** A page of the text, with its place for messages: a number, "last", or with printed labels a label such as "iv". */
export interface PageRef {
  readonly kind: 'number' | 'last' | 'label';
  /** As written; of a label in lower case. */
  readonly text: string;
  readonly at: number;
  readonly length: number;
}

/** "portrait" and the like, or the name of a paper size. */
export interface Filter {
  readonly kind: 'odd' | 'even' | 'portrait' | 'landscape' | 'color' | 'blank' | 'size';
  /** The size's name; empty with the other filters. */
  readonly name: string;
  readonly at: number;
  readonly length: number;
}

/** A place in a section: "2:" and "2:4", where no page is the whole of it. */
export interface SectionRef {
  readonly section: number;
  readonly page: PageRef | null;
  readonly at: number;
  readonly length: number;
}

export type Term =
  | { readonly kind: 'all' }
  | { readonly kind: 'range'; readonly from: PageRef | null; readonly to: PageRef | null }
  | { readonly kind: 'section'; readonly from: SectionRef; readonly to: SectionRef | null }
  | { readonly kind: 'heading'; readonly title: string; readonly at: number; readonly length: number }
  | { readonly kind: 'group'; readonly items: readonly Item[] };

/** A term, what is done to it, and the terms left out of it. */
export interface Item {
  readonly term: Term;
  /** The product of all counts: how often the pages stand one after another. */
  readonly times: number;
  /** Where the last count stands, for messages. */
  readonly timesAt: number;
  /**
   * Each once: a filter looks at a page alone, so neither the order of filters among each other nor their order among
   * counts changes what comes out, and the same filter again changes nothing.
   */
  readonly filters: readonly Filter[];
  readonly but: readonly Term[];
}

export interface ReadingRules {
  /** True: a page may be named by its printed label, so that words which are none of the language's are labels. */
  readonly labels: boolean;
}

const MAX_CHARACTERS = 10_000;
const MAX_NESTING = 20;
const MAX_TIMES = 9999;

const FILTERS: Record<string, Filter['kind']> = {
  odd: 'odd',
  even: 'even',
  portrait: 'portrait',
  landscape: 'landscape',
  color: 'color',
  colour: 'color',
  blank: 'blank',
  size: 'size',
};
const PAGE_WORDS = ['page', 'pages'];
const WORDS = ['all', 'last', 'but', ...PAGE_WORDS, 'section', ...Object.keys(FILTERS)];

/** What people shorten, as in "s2": with the space that its number then needs. */
const SHORTENED: Record<string, string> = { p: 'page ', pp: 'pages ', pg: 'page ', s: 'section ', sec: 'section ' };

const A_PAGE = 'a page number, "last" or "all"';

/**
 * Reads the selection language (model, Choosing pages) into items; whether the pages exist is asked later, against a
 * document, so that a text is read once for many.
 *
 * @throws SelectionError
 */
export function parseSelection(text: string, rules: ReadingRules = { labels: false }): readonly Item[] {
  if (text.length > MAX_CHARACTERS) {
    throw new SelectionError(
      `the selection is ${text.length} characters long; ${MAX_CHARACTERS} is the most`,
      MAX_CHARACTERS,
      text.length - MAX_CHARACTERS,
      'a shorter text',
      null,
    );
  }
  if (text.trim() === '') throw new SelectionError('no page is chosen', 0, 0, 'pages, as in 1-4, 7', 'all');
  const reader = new Reader(tokenize(text), rules);
  const items = reader.selection(0);
  reader.end();
  return items;
}

class Reader {
  private next = 0;

  constructor(
    private readonly tokens: readonly Token[],
    private readonly rules: ReadingRules,
  ) {}

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
    if (token.kind === 'word' && !WORDS.includes(token.text)) throw this.unknownWord(token);
    const begins = token.kind === 'number' || token.kind === 'word';
    const repair = begins ? `, ${token.text}` : token.kind === 'hyphen' ? '' : null;
    throw this.error(`"${token.text}" cannot follow here`, token, 'a comma before it', repair);
  }

  private item(depth: number): Item {
    const term = this.term(depth);
    const filters: Filter[] = [];
    let times = 1;
    let timesAt = 0;
    for (;;) {
      const token = this.peek();
      if (token.kind === 'times') {
        timesAt = token.at;
        times *= this.times();
      } else if (isFilter(token)) {
        const filter = this.filter();
        if (!filters.some((other) => other.kind === filter.kind && other.name === filter.name)) filters.push(filter);
      } else break;
    }
    const but: Term[] = [];
    if (this.takeWord('but')) {
      do but.push(this.term(depth));
      while (this.take('comma'));
    }
    return { term, times, timesAt, filters, but };
  }

  private times(): number {
    this.next += 1;
    const token = this.peek();
    if (token.kind !== 'number') throw this.error('"x" needs a count', token, 'how many times, as in 1 x4', null);
    this.next += 1;
    const count = Number(token.text);
    if (count < 1 || count > MAX_TIMES) {
      const repair = count < 1 ? '1' : String(MAX_TIMES);
      throw this.error(`"x${token.text}" is not possible`, token, `a count from 1 to ${MAX_TIMES}`, repair);
    }
    return count;
  }

  private filter(): Filter {
    const token = this.advance();
    const kind = FILTERS[token.text] as Filter['kind'];
    if (kind !== 'size') return { kind, name: '', at: token.at, length: token.length };
    const name = this.peek();
    if (!this.take('name')) throw this.error('"size" needs a name', name, 'a paper size, as in size a4', null);
    return { kind, name: name.text, at: name.at, length: name.length };
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
    if (this.take('title')) return { kind: 'heading', title: token.text, at: token.at, length: token.length };
    // "odd" and "even" alone are what people type for "all odd" and "all even".
    if (isFilter(token)) {
      const item = { term: { kind: 'all' as const }, times: 1, timesAt: 0, filters: [this.filter()], but: [] };
      return { kind: 'group', items: [item] };
    }
    if (this.take('hyphen')) {
      const to = this.page();
      if (!to) throw this.error('a range lacks its last page', this.peek(), A_PAGE, null);
      return { kind: 'range', from: null, to };
    }
    const isPage = PAGE_WORDS.some((word) => this.takeWord(word));
    const section = isPage ? null : this.section();
    if (section) {
      if (!section.page || !this.take('hyphen')) return { kind: 'section', from: section, to: null };
      return { kind: 'section', from: section, to: this.section() ?? this.pageOf(section) };
    }
    const from = this.page();
    if (!from) throw this.notAPage(this.peek());
    if (!this.take('hyphen')) return { kind: 'range', from, to: from };
    return { kind: 'range', from, to: this.page() };
  }

  /** "2:", "section 2" or "2:4"; null, with nothing taken, where no section stands. */
  private section(): SectionRef | null {
    if (this.takeWord('section')) {
      const { kind, text, at, length } = this.peek();
      if (kind !== 'number') throw this.error('"section" needs a number', this.peek(), 'as in section 2', null);
      this.next += 1;
      return { section: Number(text), page: null, at, length };
    }
    const number = this.peek();
    if (number.kind !== 'number' || this.tokens[this.next + 1]?.kind !== 'colon') return null;
    this.next += 2;
    const page = this.page(false);
    return { section: Number(number.text), page, at: number.at, length: number.length };
  }

  /** The end of a range within a section: "4" after "2:1-". */
  private pageOf(section: SectionRef): SectionRef {
    const page = this.page(false);
    if (!page) throw this.error('a range in a section lacks its last page', this.peek(), 'a page, as in 2:1-4', null);
    return { ...section, page };
  }

  /** Pages of a section are counted from its first, whatever is printed on them. */
  private page(labels = this.rules.labels): PageRef | null {
    const token = this.peek();
    const { text, at, length } = token;
    if (this.takeWord('last')) return { kind: 'last', text, at, length };
    if (this.take('number')) return { kind: 'number', text, at, length };
    const label = token.kind === 'times' || (token.kind === 'word' && !WORDS.includes(text));
    if (!labels || !label) return null;
    this.next += 1;
    return { kind: 'label', text, at, length };
  }

  private notAPage(token: Token): SelectionError {
    if (token.kind === 'word' && !WORDS.includes(token.text)) return this.unknownWord(token);
    const message = token.kind === 'end' ? 'a page is missing at the end' : `"${token.text}" is not a page`;
    return this.error(message, token, A_PAGE, token.kind === 'comma' ? '' : null);
  }

  private unknownWord(token: Token): SelectionError {
    const { text } = token;
    const next = this.tokens[this.next + 1]?.kind;
    // A size has a name, so whoever writes a number there means no size.
    const known = WORDS.filter((word) => word !== 'size' || next !== 'number');
    const near =
      next === 'number' && Object.hasOwn(SHORTENED, text)
        ? (SHORTENED[text] as string)
        : (known.find((word) => word.startsWith(text) || text.startsWith(word)) ?? null);
    return this.error(`"${text}" is not a word of the selection`, token, WORDS.join(', '), near);
  }

  private peek(): Token {
    return this.tokens[this.next] as Token;
  }

  private advance(): Token {
    return this.tokens[this.next++] as Token;
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
    return new SelectionError(message, token.at, token.length, expected, repair);
  }
}

const isFilter = (token: Token): boolean => token.kind === 'word' && Object.hasOwn(FILTERS, token.text);
