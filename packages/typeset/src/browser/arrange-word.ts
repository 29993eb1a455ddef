import type { PageElement } from './page-types';
import type { WordWindow } from './lay-word';

/** A section as the page is told of it; lengths in points. */
export interface SectionInPage {
  /** Of its text. */
  readonly width: number;
  /** From its text to the paper's edge. */
  readonly room: number;
  readonly columns: number;
  readonly columnGap: number;
  readonly hasColumnLine: boolean;
  /** Parts of heads and feet that stand on its pages. */
  readonly parts: readonly string[];
  /** Before it begins: style of breaks, and the name of its pages. */
  readonly breakBefore: string;
  readonly page: string;
}

/**
 * Runs in the browser: puts the pieces of a text document where they are laid out: sections one below the other, each with its notes,
 * and heads beside them to be measured.
 *
 * @param endnotes what stands above notes at the end, and above comments
 */
export function arrangePieces({
  sections,
  titles,
}: {
  readonly sections: readonly SectionInPage[];
  readonly titles: { readonly comments: string };
}): void {
  const page = globalThis as unknown as WordWindow;
  const { document, foglio } = page;
  const { body } = document;
  const put = (parent: PageElement, className: string): PageElement => {
    const made = document.createElement('div');
    made.className = className;
    parent.append(made);
    return made;
  };
  const notesOf = (within: PageElement, kind: string): PageElement[] =>
    [...within.querySelectorAll(`[id^="foglio-note:${kind} "]`)].flatMap(({ id }) => {
      const note = foglio.notes.get(id.slice('foglio-note:'.length));
      return note ? [note] : [];
    });
  const last = foglio.sections.at(-1);
  foglio.sections.forEach((content, at) => {
    const { width, room, columns, columnGap, hasColumnLine, breakBefore, page: name } = sections[at]!;
    const section = put(body, 'foglio-section');
    section.style.setProperty('width', `${width}pt`);
    section.style.setProperty('--room', String(room));
    section.style.setProperty('position', 'relative');
    section.style.setProperty('break-before', breakBefore);
    section.style.setProperty('page', name);
    const inside = columns > 1 ? put(section, 'foglio-columns') : section;
    if (columns > 1) {
      inside.style.setProperty('columns', String(columns));
      inside.style.setProperty('column-gap', `${columnGap}pt`);
      if (hasColumnLine) inside.style.setProperty('column-rule', '.5pt solid');
    }
    inside.append(...content.children);
    const notes = notesOf(section, 'footnote');
    if (notes.length > 0) put(section, 'foglio-notes').append(...notes);
    if (content !== last) return;
    const ends = [...body.querySelectorAll('.foglio-section')].flatMap((one) => notesOf(one, 'endnote'));
    if (ends.length > 0) put(section, 'foglio-notes').append(...ends);
    if (foglio.comments.length === 0) return;
    const comments = put(section, 'foglio-notes');
    const title = document.createElement('p');
    title.textContent = titles.comments;
    title.style.setProperty('font', 'bold 11pt Carlito,sans-serif');
    comments.append(title);
    for (const { who, number, text } of foglio.comments) {
      const said = document.createElement('p');
      said.textContent = `${number} ${who}`;
      said.style.setProperty('font', '9pt Carlito,sans-serif');
      said.style.setProperty('break-after', 'avoid');
      comments.append(said, text);
    }
  });
  const holder = put(body, 'foglio-heads');
  for (const [part, head] of foglio.heads) {
    const box = put(holder, 'foglio-head');
    const owner = sections.find(({ parts }) => parts.includes(part));
    box.style.setProperty('width', `${owner?.width ?? 400}pt`);
    box.append(...head.children);
    foglio.heads.set(part, box);
  }
}

/** Runs in the browser. @returns how high each head and foot is in a text so wide, in points */
export function measureHeads(asked: readonly { readonly part: string; readonly width: number }[]): number[] {
  const { foglio } = globalThis as unknown as WordWindow;
  return asked.map(({ part, width }) => {
    const box = foglio.heads.get(part);
    if (!box) return 0;
    box.style.setProperty('width', `${width}pt`);
    return (box.getBoundingClientRect().height * 72) / 96;
  });
}

/** A heading, or a place of its own, in the page that is printed. */
export interface PlaceInPage {
  readonly name: string;
  readonly title: string;
  /** 0: no heading. */
  readonly level: number;
}

/**
 * Runs in the browser: settles how pages are, and names the places whose pages are asked for: sections, headings, and whatever
 * fields ask after. A browser writes down the places that links lead to.
 *
 * @param spacers room at the beginning of sections whose first head is higher, in points
 */
export function settlePages({
  css,
  spacers,
}: {
  readonly css: string;
  readonly spacers: readonly number[];
}): PlaceInPage[] {
  const page = globalThis as unknown as WordWindow;
  const { document, foglio } = page;
  const style = document.createElement('style');
  style.textContent = css;
  document.head.append(style);
  document.querySelector('.foglio-heads')?.remove();
  const links = document.createElement('nav');
  links.style.setProperty('display', 'none');
  const places: PlaceInPage[] = [];
  const namePlace = (within: PageElement, title: string, level: number, own?: string): void => {
    const name = own ?? `foglio-place:${places.length}`;
    const place = document.createElement('a');
    place.id = name;
    place.style.setProperty('position', 'absolute');
    place.style.setProperty('width', '1px');
    place.style.setProperty('height', '1px');
    within.prepend(place);
    const link = document.createElement('a');
    link.href = `#${name}`;
    links.append(link);
    places.push({ name, title, level });
  };
  [...document.querySelectorAll('.foglio-section')].forEach((section, at) => {
    if ((spacers[at] ?? 0) > 0) {
      const spacer = document.createElement('div');
      spacer.style.setProperty('height', `${spacers[at]}pt`);
      section.prepend(spacer);
    }
    namePlace(section, '', 0, `foglio-section:${at}`);
  });
  for (const [paragraph, { level = 0 }] of foglio.paragraphs) {
    if (level === 0 || !paragraph.closest('.foglio-section')) continue;
    const title = (paragraph.textContent ?? '')
      .replace(/[\s\u200b]+/g, ' ')
      .trim()
      .slice(0, 255);
    if (title !== '') namePlace(paragraph, title, level);
  }
  for (const place of document.querySelectorAll('[id^="foglio-place-"]')) {
    const paragraph = place.closest('p');
    if (paragraph) namePlace(paragraph, '', 0, `foglio-asked:${place.id.slice('foglio-place-'.length)}`);
  }
  [...document.querySelectorAll('.foglio-section [id^="foglio-field:"]')].forEach((field, at) => {
    const paragraph = field.closest('p');
    if (paragraph) namePlace(paragraph, '', 0, `foglio-field:${at}`);
  });
  document.body.append(links);
  return places;
}

/** Runs in the browser: leaves a page blank before a section. */
export function leaveBlank(at: number): void {
  const { document } = globalThis as unknown as WordWindow;
  const section = [...document.querySelectorAll('.foglio-section')][at]!;
  const blank = document.createElement('div');
  const before = section.previousElementSibling ?? section;
  for (const [name, value] of Object.entries({
    page: before.style.getPropertyValue('page'),
    'break-before': 'page',
    position: 'relative',
    height: '1px',
  })) {
    blank.style.setProperty(name, value);
  }
  const place = document.createElement('a');
  place.id = `foglio-blank:${at}`;
  place.style.setProperty('display', 'inline-block');
  place.style.setProperty('height', '1px');
  place.style.setProperty('width', '1px');
  blank.append(place);
  const link = document.createElement('a');
  link.href = `#${place.id}`;
  document.querySelector('nav')?.append(link);
  section.before(blank);
}
