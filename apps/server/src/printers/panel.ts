import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { Response as Answering } from 'express';
import { Problem } from '../http/problem';
import type { StoredPrinter } from './printer-store';

const ANSWERS_WITHIN_MS = 10_000;

/**
 * Asks the front panel of a simulated printer, or does something at it.
 *
 * @param change what to put there; left out, it is only asked
 * @throws Problem where it is a real printer, refuses, knows no such thing or is away
 */
export async function askPanel(printer: StoredPrinter, path: string, change?: unknown): Promise<Response> {
  if (printer.panel === null) throw new Problem('not-found', `${printer.name} is a real printer: see to it there.`);
  const put = { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(change) };
  let answer: Response;
  try {
    const signal = AbortSignal.timeout(ANSWERS_WITHIN_MS);
    answer = await fetch(printer.panel + path, { signal, ...(change === undefined ? {} : put) });
  } catch {
    throw new Problem('printer-away', `${printer.name} does not answer.`);
  }
  if (answer.status === 404) throw new Problem('not-found', `${printer.name} does not know of this any more.`);
  if (!answer.ok) throw new Problem('body-invalid', `${printer.name} does not take this: ${await answer.text()}`);
  return answer;
}

/** Gives on a PDF that the panel answered with. */
export async function passOn({ body }: Response, answering: Answering): Promise<void> {
  answering.type('application/pdf');
  await pipeline(Readable.fromWeb(body as ReadableStream), answering);
}
