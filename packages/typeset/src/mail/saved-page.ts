import { HOME } from '../browser/address';
import type { AllBeside, Beside } from '../browser/beside';
import { unfitForm } from '@foglio/pdf';
import { bytesOf, parseMail } from './read-mail';

/** A web page as a browser saved it, and all that it shows by its address. */
export interface SavedPage {
  readonly bytes: Uint8Array;
  /** Where it was. */
  readonly address: string;
  readonly beside: AllBeside;
}

/**
 * Reads a web page that was saved with all that it shows (RFC 2557).
 *
 * @throws PdfError where it cannot be read, or holds no page
 */
export async function readSavedPage(bytes: Uint8Array): Promise<SavedPage> {
  const { attachments } = await parseMail(asAttachments(bytes));
  const parts = attachments.map((part) => ({
    bytes: bytesOf(part),
    type: part.mimeType,
    address: addressIn(part.filename ?? ''),
  }));
  const [page] = parts.filter(({ type }) => type === 'text/html' || type === 'application/xhtml+xml');
  if (!page) throw unfitForm('no page is in it', 'Save it again in the browser, or as PDF.');
  const beside = new Map<string, Beside>(
    parts.filter((part) => part !== page).map(({ address, bytes: held, type }) => [address, { bytes: held, type }]),
  );
  const html = new TextDecoder().decode(page.bytes).replace(/cid:([^"'\s)>]+)/gi, (_, id: string) => cidAddress(id));
  return { bytes: new TextEncoder().encode(html), address: page.address, beside };
}

const cidAddress = (id: string): string => `${HOME}cid/${encodeURIComponent(id)}`;

/** Where a part was, as its file name says it here. */
function addressIn(name: string): string {
  const address = decodeURIComponent(name);
  return address.startsWith('cid:') ? cidAddress(address.slice('cid:'.length)) : address;
}

/**
 * The library tells file names of parts, but not where they were (RFC 2557, 4.2): in the heads of all parts the one is written
 * as the other, so that each part, the page too, comes as an attachment under its address.
 */
function asAttachments(bytes: Uint8Array): Uint8Array {
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('latin1');
  let count = 0;
  const written = text.replace(
    /^--[^\r\n]+\r?\n((?:[\w-]+:[^\r\n]*(?:\r?\n[ \t][^\r\n]*)*\r?\n)+)(?=\r?\n)/gm,
    (whole, head: string) => {
      count += 1;
      const where = /^content-location:\s*((?:[^\r\n]|\r?\n[ \t])*)/im.exec(head)?.[1]?.replace(/\s+/g, '');
      const id = /^content-id:\s*<([^>]*)>/im.exec(head)?.[1];
      const address = where ?? (id === undefined ? `${HOME}part/${count}` : `cid:${id}`);
      const others = head.replace(/^content-(location|disposition|id):(?:[^\r\n]|\r?\n[ \t])*\r?\n/gim, '');
      return `${whole.slice(0, whole.length - head.length)}${others}Content-Disposition: attachment; filename="${encodeURIComponent(address)}"\r\n`;
    },
  );
  return Buffer.from(written, 'latin1');
}
