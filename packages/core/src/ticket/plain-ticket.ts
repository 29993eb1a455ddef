import { storedTicket } from './stored';
import type { Ticket } from './ticket';

/** A ticket that says nothing but its files: every setting at its default. */
export const plainTicket = (files: readonly string[]): Ticket =>
  storedTicket({ version: 1, documents: files.map((file) => ({ file })) });
