import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Message } from '@foglio/ipp';
import type { ServedPrinter } from '@foglio/ipp/serving';
import type { Machine } from '../machine';

/** In what a printer differs from one that does everything as it should. */
export interface Manner {
  /** What it does, in a sentence. */
  readonly is: string;
  /** The printer as it would be, made otherwise. */
  readonly served?: (printer: ServedPrinter, machine: Machine) => ServedPrinter;
  /** Says otherwise what it answers. */
  readonly says?: (answer: Message) => Message;
  /** Sends other bytes than those of its answer. */
  readonly sends?: (answer: Uint8Array) => Uint8Array;
  /** Milliseconds between two bytes of an answer. */
  readonly dripMs?: number;
  /** Operations after whose request it ends the connection. */
  readonly hangsUpAfter?: readonly number[];
  /** Answers a request in its own way. @returns whether it did */
  readonly answers?: (request: IncomingMessage, response: ServerResponse) => boolean;
}
