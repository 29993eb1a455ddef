import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** How much of each page is covered by cyan, magenta, yellow and black, by Ghostscript's inkcov. */
export function inks(pdf: Uint8Array): number[][] {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-inks-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const told = execFileSync('gs', ['-q', '-o', '-', '-sDEVICE=inkcov', join(folder, 'a.pdf')], { encoding: 'utf8' });
    return [...told.matchAll(/^ *([\d.]+) +([\d.]+) +([\d.]+) +([\d.]+) +CMYK/gm)].map((row) =>
      row.slice(1, 5).map(Number),
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
