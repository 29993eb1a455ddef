import { lendFrom, serveBrowser, takeInDocument, type TakenDocument } from '../src';
import type { Form } from '@foglio/core';

/** One browser for all tests of a file. */
export function browserForAll(): (name: string, bytes: Uint8Array, form?: Form) => Promise<TakenDocument> {
  let endpoint: string;
  let close: () => Promise<void>;
  beforeAll(async () => {
    const served = await serveBrowser();
    ({ endpoint, close } = served);
  });
  afterAll(() => close());
  return (name, bytes, form = {}) =>
    takeInDocument(bytes, { name, form, password: null, today: '2026-09-01', lendBrowser: lendFrom(endpoint) });
}
