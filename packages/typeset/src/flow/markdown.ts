import { formFor, laidOut, type Form, type LaidOut } from '@foglio/core';
import MarkdownIt from 'markdown-it';
import type { WebDocument } from '../browser/print-page';
import { fontFaces } from '../browser/fonts';
import { encodingOf, lettersOf } from '../text/letters';
import { pageStyle } from './page-style';

/** Points. */
const SIZE = 11;

const markdown = new MarkdownIt('default', { html: true, linkify: false, typographer: false });

/** "[ ] to do", "[x] done" at the beginning of an item (GitHub Flavored Markdown 0.29, 5.3). */
const TASK = /^\[([ xX])\]\s+/;

markdown.core.ruler.after('inline', 'tasks', ({ tokens }) => {
  tokens.forEach((token, at) => {
    const text = token.children?.[0];
    if (token.type !== 'inline' || tokens[at - 2]?.type !== 'list_item_open' || text?.type !== 'text') return;
    const task = TASK.exec(text.content);
    if (!task) return;
    text.content = `${task[1] === ' ' ? '☐' : '☑'} ${text.content.slice(task[0].length)}`;
    tokens[at - 2]!.attrJoin('class', 'task');
  });
});

/** Lines of code, each of its own, so that one that goes on below is marked there. */
const codeLines = (code: string): string =>
  code
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => `<span class="line">${markdown.utils.escapeHtml(line)}\n</span>`)
    .join('');

const block: NonNullable<(typeof markdown.renderer.rules)['fence']> = (tokens, at) =>
  `<pre><code>${codeLines(tokens[at]!.content)}</code></pre>\n`;

Object.assign(markdown.renderer.rules, { fence: block, code_block: block });

/** An arrow where a line of code goes on. */
const GOES_ON =
  "url(\"data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 10 14'%3E%3Cpath d='M2 2v6h5M5 5.5 7.5 8 5 10.5' fill='none' stroke='%23000'/%3E%3C/svg%3E\")";

const style = (size: number): string => `
body{margin:0;font:${size}pt/1.4 Carlito,sans-serif;overflow-wrap:break-word}
h1,h2,h3,h4,h5,h6{line-height:1.2;margin:1.2em 0 .4em;break-after:avoid}
h1{font-size:1.8em;margin-top:0}h2{font-size:1.4em}h3{font-size:1.15em}h4,h5,h6{font-size:1em}
p,ul,ol,blockquote,pre,table{margin:0 0 .7em}ul,ol{padding-left:1.6em}li>p{margin-bottom:.3em}
blockquote{padding-left:1em;border-left:.75pt solid #000}
code{font:.88em Cousine,monospace}pre{line-height:1.35}
pre code{display:block;white-space:pre-wrap;overflow-wrap:anywhere}
.line{display:block;position:relative;padding-left:2ch;text-indent:0}
.line::before{content:"";position:absolute;left:0;top:1lh;bottom:0;width:1.6ch;background:${GOES_ON} 0 0/1.4ch 1lh repeat-y;print-color-adjust:exact}
table{border-collapse:collapse}th,td{padding:2pt 6pt;border:.25pt solid #000;vertical-align:top;text-align:left}
thead{display:table-header-group}tr{break-inside:avoid}
img,svg{max-width:100%;height:auto}hr{border:0;border-top:.25pt solid #000}
textarea{field-sizing:content}.task{list-style:none;margin-left:-1.2em}a{color:inherit}`;

/** The text as HTML. */
export const markdownBody = (text: string): string => markdown.render(text);

/** A Markdown document as a browser lays it out, and how it was taken. */
export function markdownPage(
  bytes: Uint8Array,
  asked: Form,
): { readonly document: WebDocument; readonly laid: LaidOut } {
  const form = formFor('markdown', asked);
  const { typeSize = SIZE, orientation = 'portrait' } = form;
  const page = pageStyle(form);
  const body = markdownBody(lettersOf(bytes, encodingOf(bytes)));
  const html = `<!doctype html><html><head><meta charset="utf-8"><style>${fontFaces()}${page.css}${style(typeSize)}</style></head><body>${body}</body></html>`;
  return {
    document: { html, width: page.width, fitsTables: true },
    laid: laidOut('markdown', asked, { typeSize, orientation }),
  };
}
