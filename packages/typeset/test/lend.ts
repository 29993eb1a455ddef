import type { Form } from '@foglio/core';
import { openBrowser, takeInDocument, type OpenBrowser, type TakenDocument } from '../src';

/** One browser for all tests of a file. */
export function browserForAll(): (name: string, bytes: Uint8Array, form?: Form) => Promise<TakenDocument> {
  let browser: OpenBrowser;
  beforeAll(async () => void (browser = await openBrowser()));
  afterAll(() => browser.close());
  return (name, bytes, form = {}) =>
    takeInDocument(bytes, { name, form, password: null, today: '2026-09-01', lay: (work) => browser.lay(work) });
}
