import type { PageField } from '../word/marks';
import type { WordWindow } from './lay-word';
import type { PageElement } from './page-types';

/** Numbers of a page as fields show them. */
export interface NumbersInPage {
  /** By the form in which they are asked for; '' is the section's own. */
  readonly page: Readonly<Record<string, string>>;
  readonly pages: string;
  readonly sectionPages: string;
}

/** A page with what stands around its text; lengths in points. */
export interface HeadedPage {
  /** Name of its CSS page. */
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly textWidth: number;
  readonly headAt: number;
  readonly footAt: number;
  readonly head: string | null;
  readonly foot: string | null;
  readonly isFramed: boolean;
  readonly numbers: NumbersInPage;
}

/** Runs in the browser: fills fields in the text, in their order. @returns whether any of them changed */
export function fillFields({
  numbers,
  places,
}: {
  readonly numbers: readonly NumbersInPage[];
  readonly places: Readonly<Record<string, NumbersInPage>>;
}): boolean {
  const { document } = globalThis as unknown as WordWindow;
  let changed = false;
  [...document.querySelectorAll('.foglio-section [id^="foglio-field:{"]')].forEach((shown, at) => {
    const field = JSON.parse(shown.id.slice('foglio-field:'.length)) as PageField;
    const known = field.of === undefined ? numbers[at] : places[field.of];
    if (!known) return;
    const text =
      field.shows === 'pages'
        ? known.pages
        : field.shows === 'section-pages'
          ? known.sectionPages
          : (known.page[field.form ?? ''] ?? known.page['']!);
    if (shown.textContent === text) return;
    shown.textContent = text;
    changed = true;
  });
  return changed;
}

/** Runs in the browser: leaves of a text document its heads and feet alone, page by page. */
export function layHeads(pages: readonly HeadedPage[]): void {
  const { document, foglio } = globalThis as unknown as WordWindow;
  const fresh = pages.map((page) => {
    const sheet = document.createElement('div');
    sheet.className = 'foglio-page';
    const styles = {
      page: page.name,
      position: 'relative',
      width: `${page.width}pt`,
      height: `${page.height - 0.1}pt`,
      overflow: 'hidden',
      'break-after': 'page',
      'z-index': '0',
    };
    for (const [name, value] of Object.entries(styles)) sheet.style.setProperty(name, value);
    if (page.isFramed) {
      const frame = document.createElement('div');
      for (const [name, value] of Object.entries({ position: 'absolute', inset: '24pt', border: '.75pt solid #000' })) {
        frame.style.setProperty(name, value);
      }
      sheet.append(frame);
    }
    const put = (part: string | null, side: 'top' | 'bottom', at: number): void => {
      const original = part === null ? undefined : foglio.heads.get(part);
      if (!original) return;
      const copy = original.cloneNode(true);
      const paragraphs = [...copy.querySelectorAll('p')];
      [...original.querySelectorAll('p')].forEach((paragraph, index) => {
        const mark = foglio.paragraphs.get(paragraph);
        if (mark) foglio.paragraphs.set(paragraphs[index]!, mark);
      });
      for (const shown of copy.querySelectorAll('[id^="foglio-field:{"]')) {
        const { shows, form = '' } = JSON.parse(shown.id.slice('foglio-field:'.length)) as PageField;
        const { page: own, pages: all, sectionPages } = page.numbers;
        shown.textContent =
          shows === 'pages' ? all : shows === 'section-pages' ? sectionPages : (own[form] ?? own['']!);
      }
      const box: PageElement = copy;
      for (const [name, value] of Object.entries({
        position: 'absolute',
        left: `${page.left}pt`,
        width: `${page.textWidth}pt`,
        [side]: `${at}pt`,
      })) {
        box.style.setProperty(name, value);
      }
      sheet.append(box);
    };
    put(page.head, 'top', page.headAt);
    put(page.foot, 'bottom', page.footAt);
    return sheet;
  });
  document.body.replaceChildren(...fresh);
  // Places in the head that are set from the page's corner, and not from their paragraph's.
  for (const one of document.querySelectorAll('.foglio-page p [style*="--from"]')) {
    if (one.style.getPropertyValue('--from').trim() !== 'head') continue;
    const paragraph = one.closest('p');
    paragraph?.style.setProperty('position', 'static');
  }
}
