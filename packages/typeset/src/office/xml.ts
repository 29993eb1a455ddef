import { damagedDocument } from '@foglio/pdf';
import { SaxesParser } from 'saxes';

/** Bytes that are read at a time. */
const CHUNK = 65_536;

export interface XmlHandlers {
  /** @param name without its prefix */
  readonly open: (name: string, attributes: Readonly<Record<string, string>>) => void;
  readonly text: (text: string) => void;
  readonly close: (name: string) => void;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/** Ends the reading of a part before its end. */
export class Enough extends Error {
  override readonly name = 'Enough';
}

/**
 * Reads a part of a file element by element. Entities of a document's own are not known, so that none can grow.
 *
 * @param what for whoever is told that it cannot be read
 * @returns whether it was read to its end: {@link Enough} thrown by a handler ends it
 * @throws PdfError where it is no XML
 */
export function readXml(bytes: Uint8Array, what: string, { open, text, close }: XmlHandlers): boolean {
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => open(local(name), attributes));
  parser.on('text', text);
  parser.on('cdata', text);
  parser.on('closetag', ({ name }) => close(local(name)));
  const decoder = new TextDecoder();
  try {
    for (let at = 0; at < bytes.length; at += CHUNK) {
      parser.write(decoder.decode(bytes.subarray(at, at + CHUNK), { stream: true }));
    }
    parser.close();
    return true;
  } catch (error) {
    if (error instanceof Enough) return false;
    if (error instanceof Error && error.name === 'PdfError') throw error;
    throw damagedDocument(`${what} cannot be read (${(error as Error).message.split('\n')[0]})`);
  }
}
