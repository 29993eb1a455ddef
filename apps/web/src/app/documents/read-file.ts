import type { FactsRecord } from '@foglio/api';
import type { Heading, PageFacts } from '@foglio/core';

/** A file as far as it has been read. */
export interface ReadFile {
  readonly id: string;
  readonly pages: readonly PageFacts[];
  readonly read: number;
  readonly outline?: readonly Heading[];
}

/** A file with what became known of it since. */
export const withFacts = <T extends ReadFile>(file: T, { read, pages, outline }: FactsRecord): T => ({
  ...file,
  read,
  ...(outline ? { outline } : {}),
  pages: file.pages.toSpliced(file.read, pages.length, ...pages),
});
