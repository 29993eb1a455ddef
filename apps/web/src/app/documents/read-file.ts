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
export function withFacts<T extends ReadFile>(file: T, { read, pages, outline, ahead }: FactsRecord): T {
  const known = file.pages.toSpliced(file.read, pages.length, ...pages);
  return {
    ...file,
    read,
    ...(outline ? { outline } : {}),
    pages: ahead ? known.toSpliced(ahead.from - 1, ahead.pages.length, ...ahead.pages) : known,
  };
}

/** Whether what is on a page has been found out. */
export const isPageKnown = ({ smallestText, content }: PageFacts): boolean =>
  smallestText !== undefined || content !== undefined;
