import { addressOf, OPERATIONS, type SendingRecord, type PrintedFace, type PrinterRecord } from '@foglio/api';

/** Where a stack of printed sheets is asked for. */
export interface StackSource {
  /** Another one: another stack. */
  readonly key: string;
  /** Another one: the same stack, to be asked for anew. */
  readonly news: unknown;
  /** By which operation; null: nothing can have come out yet. */
  readonly of: 'stack' | 'output' | null;
  readonly documentOf: (face: PrintedFace) => string;
}

/** What one sending came to. */
export function sendingStack({ id, state, sheetsDone }: SendingRecord): StackSource {
  const isSent = state !== 'queued' && state !== 'sending';
  return {
    key: id,
    news: `${sheetsDone}, ${state}`,
    of: isSent ? 'stack' : null,
    documentOf: ({ job, document }) => addressOf(OPERATIONS.sendingDocument, { id, job, document }),
  };
}

/** What lies in the output of a simulated printer. */
export function outputStack({ id }: PrinterRecord, news: unknown): StackSource {
  return {
    key: id,
    news,
    of: 'output',
    documentOf: ({ job, document }) => addressOf(OPERATIONS.outputDocument, { id, job, document }),
  };
}
