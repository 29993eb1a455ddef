import type { Mark, ParagraphMark } from '../word/marks';
import type { PageElement, PageWindow } from './page-types';

/** What is told to the page that lays a text document out. */
export interface WordInPage {
  /** Base 64. */
  readonly file: string;
  readonly hyphenates: boolean;
}

/** The library that runs in the page. */
interface DocxLibrary {
  parseAsync(file: Uint8Array, options: object): Promise<unknown>;
  renderDocument(document: unknown, options: object): Promise<PageElement[]>;
}

/** What is kept in the page from one step to the next. */
export interface WordState {
  /** By their section. */
  readonly sections: PageElement[];
  readonly heads: Map<string, PageElement>;
  readonly notes: Map<string, PageElement>;
  readonly comments: { readonly who: string; readonly number: string; readonly text: PageElement }[];
  readonly paragraphs: Map<PageElement, ParagraphMark>;
}

export type WordWindow = PageWindow & { docx: DocxLibrary; foglio: WordState };

/**
 * Runs in the browser: has the library make a text document's paragraphs, tables and pictures, and takes them apart into the
 * pieces that are marked in it.
 */
export async function makePieces({ file, hyphenates }: WordInPage): Promise<void> {
  const page = globalThis as unknown as WordWindow;
  const { document, docx } = page;
  const options = { inWrapper: false, useBase64URL: true, renderChanges: true, renderAltChunks: false };
  const bytes = Uint8Array.from(atob(file), (letter) => letter.charCodeAt(0));
  const made = await docx.renderDocument(await docx.parseAsync(bytes, options), options);
  const article = made.find((node) => node.tagName === 'SECTION')?.querySelector('article');
  document.head.append(...made.filter((node) => node.tagName === 'STYLE'));
  const style = document.createElement('style');
  style.textContent =
    `.docx{hyphens:${hyphenates ? 'auto' : 'manual'}}.docx p{position:relative;min-height:0}.docx p::before{content:none}` +
    ':where(.docx td){padding:0 5.4pt}.docx{print-color-adjust:exact;overflow-wrap:break-word}sup,sub{line-height:0}ins{color:#06c}del{color:#b00}';
  document.head.append(style);

  const state: WordState = { sections: [], heads: new Map(), notes: new Map(), comments: [], paragraphs: new Map() };
  page.foglio = state;
  document.body.className = 'docx';
  let piece: PageElement = document.createElement('div');
  const marked: (readonly [place: PageElement, mark: Mark])[] = [];
  const readMark = (place: PageElement): Mark => JSON.parse(place.id.slice('foglio:'.length)) as Mark;
  for (const block of [...(article?.children ?? [])]) {
    const [first] = block.children.length > 0 && block.tagName === 'P' ? block.children : [];
    const begins = first?.id.startsWith('foglio:{"piece"') ? readMark(first) : null;
    if (begins && 'piece' in begins) {
      piece = document.createElement('div');
      const { piece: what } = begins;
      if (what.kind === 'section') state.sections.push(piece);
      else if (what.kind === 'head') state.heads.set(what.part, piece);
      else if (what.kind === 'comment') state.comments.push({ who: what.who, number: what.number, text: piece });
      else state.notes.set(`${what.kind} ${what.id}`, piece);
      continue;
    }
    piece.append(block);
    for (const place of block.querySelectorAll('[id^="foglio:"]')) marked.push([place, readMark(place)]);
  }

  for (const [place, mark] of marked) {
    const paragraph = place.closest('p');
    place.id = '';
    if ('paragraph' in mark && paragraph) {
      state.paragraphs.set(paragraph, mark.paragraph);
      for (const [name, value] of Object.entries(mark.paragraph.css)) paragraph.style.setProperty(name, value);
      place.remove();
    } else if ('ends' in mark && paragraph) {
      const end = document.createElement('div');
      end.style.setProperty('break-after', mark.ends);
      paragraph.replaceWith(end);
    } else if ('row' in mark) {
      const row = place.closest('tr');
      if (mark.row.isWhole) row?.style.setProperty('break-inside', 'avoid');
      if (mark.row.isHead) row?.style.setProperty('--is-head', '1');
      place.remove();
    } else if ('field' in mark) {
      const shown = place.nextElementSibling;
      if (shown) shown.id = `foglio-field:${JSON.stringify(mark.field)}`;
      place.remove();
    } else if ('note' in mark) {
      place.id = `foglio-note:${mark.note}`;
    } else if ('place' in mark) {
      place.id = `foglio-place-${mark.place}`;
    } else if ('picture' in mark) {
      const drawing = place.nextElementSibling?.querySelector('div');
      for (const [name, value] of Object.entries(mark.picture)) drawing?.style.setProperty(name, value);
      place.remove();
    }
  }

  // Rows that stand at the top of every page; only the first ones can.
  for (const table of [...state.sections, ...state.notes.values()].flatMap((one) => [
    ...one.querySelectorAll('table'),
  ])) {
    const rows = [...table.children].filter(({ tagName }) => tagName === 'TR');
    const first = rows.findIndex((row) => row.style.getPropertyValue('--is-head') === '');
    if (first <= 0) continue;
    const head = document.createElement('thead');
    rows[0]!.before(head);
    head.append(...rows.slice(0, first));
  }
}
