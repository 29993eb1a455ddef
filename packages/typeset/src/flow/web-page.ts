import { formFor, laidOut, type Form, type LaidOut } from '@foglio/core';
import { unfitForm } from '@foglio/pdf';
import { fontFaces } from '../browser/fonts';
import type { WebDocument } from '../browser/print-page';
import { pageStyle } from './page-style';
import { htmlOf, withStyle } from './html-text';
import { articleOf, readPage, type PageTree } from './page-tree';

/** Points, of the reading form. */
const SIZE = 11;

/** What is read of a page: where it is not said otherwise, the letters are large enough and lines short enough. */
const reading = (size: number): string => `
body{margin:0;font:${size}pt/1.45 Tinos,serif;overflow-wrap:break-word}
h1{font-size:1.7em;line-height:1.2;margin:0 0 .2em}h2{font-size:1.3em}h3{font-size:1.1em}h2,h3,h4{line-height:1.2;break-after:avoid}
.source{margin:0 0 1.2em;padding-bottom:.5em;border-bottom:.25pt solid #000;font-size:.85em}
img,svg,video{max-width:100%;height:auto}figure{margin:0 0 1em}figcaption{font-size:.85em}
table{border-collapse:collapse;margin:0 0 1em}th,td{padding:2pt 5pt;border:.25pt solid #000;vertical-align:top;text-align:left}
thead{display:table-header-group}tr{break-inside:avoid}pre{white-space:pre-wrap;overflow-wrap:anywhere}a{color:inherit}`;

/** What is written in a field is printed whole, and a word longer than a line goes on in the next. */
const WHOLE = 'html{overflow-wrap:break-word}textarea{field-sizing:content}';

const FOOTNOTES = '.foglio-links{font-size:.8em;margin-top:2em;overflow-wrap:anywhere}.foglio-links li{margin:0}';

/** A web page as a browser lays it out, and how it was taken. */
export interface LaidWebPage {
  readonly document: WebDocument;
  readonly laid: LaidOut;
}

/**
 * Lays out a web page: as it is, for paper or as on a screen, or in the reading form, its article alone.
 *
 * @param name of its file
 * @throws PdfError where the reading form is asked for and there is no article
 */
export function webPage(bytes: Uint8Array, name: string, asked: Form): LaidWebPage {
  const form = formFor('web-page', asked);
  const { style = 'print', pictures = true, links = false, typeSize = SIZE, orientation = 'portrait' } = form;
  const { backgrounds = style === 'screen' } = form;
  const page = pageStyle(form, form.paper !== undefined || form.orientation !== undefined);
  const source = htmlOf(bytes);
  const changed = style === 'reading' || !pictures || links ? change(source, name, { style, pictures, links }) : source;
  const own = style === 'reading' ? reading(typeSize) : '';
  const html = withStyle(changed, `${fontFaces()}${page.css}${WHOLE}${own}${links ? FOOTNOTES : ''}`);
  const size = style === 'reading' ? { typeSize } : {};
  return {
    document: {
      html,
      media: style === 'screen' ? 'screen' : 'print',
      backgrounds,
      width: page.width,
      fitsTables: true,
    },
    laid: laidOut('web-page', asked, { style, pictures, links, backgrounds, orientation, ...size }),
  };
}

/** The page with what is not wanted taken out, and what is wanted put in. */
function change(
  html: string,
  name: string,
  { style, pictures, links }: { readonly style: Form['style']; readonly pictures: boolean; readonly links: boolean },
): string {
  const page = readPage(html);
  if (style === 'reading') toArticle(page, name);
  if (!pictures) for (const one of page.querySelectorAll(PICTURES)) one.remove();
  if (links) noteLinks(page);
  return `<!doctype html>${page.documentElement.outerHTML}`;
}

/** Leaves of a page its article, under its title and where it is from. */
function toArticle(page: PageTree, name: string): void {
  const address = page.querySelector('link[rel="canonical"]')?.getAttribute('href') ?? null;
  const found = articleOf(page);
  if (!found?.content) {
    throw unfitForm('no article can be told from the rest of this page', 'Print it as it is.');
  }
  page.head.innerHTML = '<meta charset="utf-8">';
  page.body.innerHTML = found.content;
  const source = page.createElement('p');
  source.className = 'source';
  source.textContent = [found.byline, found.siteName, address ?? name].filter((one) => one).join(' · ');
  page.body.prepend(source);
  if (!found.title) return;
  const title = page.createElement('h1');
  title.textContent = found.title;
  page.body.prepend(title);
}

/** The page without what it shows beside its text. */
export function withoutPictures(html: string): string {
  const page = readPage(html);
  for (const one of page.querySelectorAll(PICTURES)) one.remove();
  return `<!doctype html>${page.documentElement.outerHTML}`;
}

const PICTURES = 'img, picture, svg, video, canvas, figure';

/** Where links lead, as numbered notes at the end; each address once. */
function noteLinks(page: PageTree): void {
  const numbers = new Map<string, number>();
  for (const link of page.querySelectorAll('a[href]')) {
    const address = link.getAttribute('href')!;
    if (!/^https?:/i.test(address)) continue;
    const number = numbers.get(address) ?? numbers.size + 1;
    numbers.set(address, number);
    const mark = page.createElement('sup');
    mark.textContent = `[${number}]`;
    link.after(mark);
  }
  if (numbers.size === 0) return;
  const list = page.createElement('ol');
  list.className = 'foglio-links';
  for (const address of numbers.keys()) {
    const item = page.createElement('li');
    item.textContent = address;
    list.append(item);
  }
  page.body.append(list);
}
