import type { LaidOut } from '@foglio/core';

/** Pages of a document that has none of its own. */
export interface LaidPages {
  readonly bytes: Uint8Array;
  /** What a person should know of how they came out, in sentences. */
  readonly remarks: readonly string[];
  readonly laid: LaidOut;
}
