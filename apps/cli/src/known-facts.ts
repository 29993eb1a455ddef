import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { PdfFacts } from '@foglio/pdf';

/**
 * What was found out of documents, kept by the number and the digest of their bytes, so that the next command need not look
 * through the same pages again. Nothing depends on it: where it cannot be read or written, the pages are looked through.
 */
const folder = (): string => join(process.env['XDG_CACHE_HOME'] ?? join(homedir(), '.cache'), 'foglio');

/** More documents than a person prints in a month, and their facts take a tenth of a megabyte each. */
const MOST_KEPT = 300;

/**
 * Where what is known of these bytes is kept. Their number comes first: where nothing is kept of so many, the digest, which of
 * a hundred photos takes longer than all that is read of them, is not reckoned. It takes half as long as the one that seals have.
 */
export const keptAt = (bytes: Uint8Array): string =>
  join(folder(), `${keptFor(bytes)}${createHash('blake2b512').update(bytes).digest('hex')}.json`);

const keptFor = (bytes: Uint8Array): string => `${bytes.length}-`;

/** What another build found out may be other than what this one would; what runs from its sources knows of no other at all. */
const BUILD = import.meta.url.endsWith('.ts') ? Date.now() : statSync(fileURLToPath(import.meta.url)).mtimeMs;

interface Kept {
  readonly build: number;
  readonly facts: PdfFacts;
}

/** Null where nothing is known. */
export function recall(bytes: Uint8Array): PdfFacts | null {
  try {
    if (!readdirSync(folder()).some((name) => name.startsWith(keptFor(bytes)))) return null;
    const kept = JSON.parse(readFileSync(keptAt(bytes), 'utf8')) as Kept;
    return kept.build === BUILD ? kept.facts : null;
  } catch {
    return null;
  }
}

/** For this user's eyes alone: headings tell what a document is about. */
export function remember(bytes: Uint8Array, facts: PdfFacts): void {
  const path = keptAt(bytes);
  const unfinished = `${path}.${process.pid}.part`;
  try {
    mkdirSync(folder(), { recursive: true, mode: 0o700 });
  } catch {
    return;
  }
  try {
    writeFileSync(unfinished, JSON.stringify({ build: BUILD, facts } satisfies Kept), { mode: 0o600 });
    renameSync(unfinished, path);
    forgetOldest();
  } catch {
    rmSync(unfinished, { force: true });
  }
}

function forgetOldest(): void {
  const names = readdirSync(folder());
  if (names.length <= MOST_KEPT) return;
  const byAge = names
    .map((name) => ({ path: join(folder(), name), at: statSync(join(folder(), name)).mtimeMs }))
    .sort((a, b) => a.at - b.at);
  for (const { path } of byAge.slice(0, names.length - MOST_KEPT)) rmSync(path, { force: true });
}
