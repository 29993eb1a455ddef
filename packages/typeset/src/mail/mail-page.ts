import { formFor, laidOut, type Form, type LaidOut } from '@foglio/core';
import { HOME } from '../browser/address';
import { fontFaces } from '../browser/fonts';
import type { AllBeside } from '../browser/beside';
import type { WebDocument } from '../browser/print-page';
import { pageStyle } from '../flow/page-style';
import { withInBody, withStyle } from '../flow/html-text';
import { withoutPictures } from '../flow/web-page';
import type { Mail, MailPart } from './read-mail';

/** Points. */
const SIZE = 11;

/** Nothing of a mail's own style reaches its head. */
const HEAD =
  'all:initial;display:block;font:9.5pt/1.4 Carlito,sans-serif;color:#000;border-bottom:.75pt solid #000;padding-bottom:6pt;margin-bottom:12pt';

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A mail's message as a browser lays it out: who wrote it to whom, and what. */
export function mailPage(
  mail: Mail,
  asked: Form,
): { readonly document: WebDocument; readonly laid: Pick<LaidOut, 'kind' | 'form' | 'taken'> } {
  const form = formFor('mail', asked);
  const { typeSize = SIZE, pictures = true, backgrounds = false, orientation = 'portrait' } = form;
  const page = pageStyle(form);
  const head = `<div style="${HEAD}">${mail.head
    .map(([name, text]) => `<div style="display:block;overflow-wrap:anywhere"><b>${name}:</b> ${escape(text)}</div>`)
    .join('')}</div>`;
  const text = `<!doctype html><body style="margin:0"><pre style="font:${typeSize}pt/1.4 Carlito,sans-serif;margin:0;white-space:pre-wrap;overflow-wrap:anywhere">${escape(mail.text)}</pre></body>`;
  const own = mail.html === null ? text : pictures ? mail.html : withoutPictures(mail.html);
  const html = withStyle(
    withInBody(ofShown(own), head),
    `${fontFaces()}${page.css}body{font:${typeSize}pt/1.4 Carlito,sans-serif;overflow-wrap:break-word}img{max-width:100%;height:auto}`,
  );
  return {
    document: { html, backgrounds, width: page.width, fitsTables: true, beside: besideOf(mail.shown) },
    laid: laidOut('mail', asked, { orientation, pictures, backgrounds, ...(mail.html === null ? { typeSize } : {}) }),
  };
}

const CID = `${HOME}cid/`;

/** Parts by their ids are asked for at addresses: of ids a browser knows nothing. */
const ofShown = (html: string): string =>
  html.replace(/cid:([^"'\s)>]+)/gi, (_, id: string) => CID + encodeURIComponent(decoded(id)));

const decoded = (id: string): string => {
  try {
    return decodeURIComponent(id);
  } catch {
    return id;
  }
};

const besideOf = (shown: readonly MailPart[]): AllBeside =>
  new Map(shown.map(({ id, bytes, type }) => [CID + encodeURIComponent(id ?? ''), { bytes, type }]));
