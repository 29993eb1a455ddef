import type { DeliveryRecord, PrintedFace, PrinterRecord } from '@foglio/api';

/** Where a stack of printed sheets is asked for. */
export interface StackSource {
  /** Another one: another stack. */
  readonly key: string;
  /** Another one: the same stack, to be asked for anew. */
  readonly news: unknown;
  /** Null: nothing can have come out yet. */
  readonly address: string | null;
  readonly documentOf: (face: PrintedFace) => string;
}

/** What one sending came to. */
export function deliveryStack({ id, state, sheetsDone }: DeliveryRecord): StackSource {
  const isSent = state !== 'queued' && state !== 'sending';
  return {
    key: id,
    news: `${sheetsDone}, ${state}`,
    address: isSent ? `/api/deliveries/${id}/stack` : null,
    documentOf: ({ job, document }) => `/api/deliveries/${id}/jobs/${job}/documents/${document}`,
  };
}

/** What lies in the output of a simulated printer. */
export function outputStack({ id }: PrinterRecord, news: unknown): StackSource {
  return {
    key: id,
    news,
    address: `/api/printers/${id}/panel/output`,
    documentOf: ({ job, document }) => `/api/printers/${id}/panel/jobs/${job}/documents/${document}`,
  };
}
