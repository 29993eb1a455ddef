import type { AboutDocument } from '@foglio/core';
import { oneLine } from './one-line';
import type { OpenPdf } from './open';

/** Longer than any title or name; a file may hold a book in its place. */
const LONGEST = 500;

/** What the information dictionary says (ISO 32000-1, 14.3.3); what is empty or cannot be read is left out. */
export function aboutOf({ document }: OpenPdf): AboutDocument {
  const title = text(() => document.getTitle());
  const author = text(() => document.getAuthor());
  const created = date(() => document.getCreationDate());
  const modified = date(() => document.getModificationDate());
  return {
    ...(title ? { title } : {}),
    ...(author ? { author } : {}),
    ...(created ? { created } : {}),
    ...(modified ? { modified } : {}),
  };
}

function text(read: () => string | undefined): string | undefined {
  try {
    const said = read();
    return said === undefined ? undefined : oneLine(said).slice(0, LONGEST).toWellFormed();
  } catch {
    // An entry of another type than the standard's.
    return undefined;
  }
}

function date(read: () => Date | undefined): string | undefined {
  try {
    return read()?.toISOString();
  } catch {
    // Not written as the standard wants it (7.9.4), or no date at all.
    return undefined;
  }
}
