import type { Form } from '@foglio/core';
import { takeInDocument, type TakenDocument } from '../src';

export const letters = (text: string): Uint8Array => new TextEncoder().encode(text);

/** A document as it is taken in, on the day of the demo world. */
export const take = (name: string, bytes: Uint8Array, form: Form = {}): Promise<TakenDocument> =>
  takeInDocument(bytes, { name, form, password: null, today: '2026-09-01' });
