import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { SheetOnPaper } from './seen-sheets';
import type { World } from './world';

/** A PDF of A4 pages, each of which says its number. */
export async function numberedPages(count: number, isLandscape = false): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (let page = 1; page <= count; page += 1) {
    pdf
      .addPage(isLandscape ? [841.89, 595.276] : [595.276, 841.89])
      .drawText(`Page-${page}-`, { x: 120, y: 400, size: 60, font });
  }
  return Buffer.from(await pdf.save());
}

/** What a printer made of its jobs, by what is on the paper: pdftotext (poppler) reads the files that it was sent. */
export async function printedSheets(
  world: World,
  jobs: readonly number[],
  printer: string,
  nameOf: (tray: string) => string,
): Promise<{ readonly set: number; readonly sheet: SheetOnPaper }[]> {
  const printed = [];
  for (const job of jobs) {
    const pages = numbersOnPages(await world.document(job, printer));
    for (const { tray, set, front, back } of await world.delivered(job, printer)) {
      const sheet = { tray: nameOf(tray), front: pages[front - 1]!, back: back === null ? null : pages[back - 1]! };
      printed.push({ set, sheet });
    }
  }
  return printed;
}

/** The numbers that stand on each page. */
function numbersOnPages(pdf: Uint8Array): number[][] {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-printed-'));
  try {
    const path = join(folder, 'sent.pdf');
    writeFileSync(path, pdf);
    const text = execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' });
    return text
      .split('\f')
      .slice(0, -1)
      .map((page) => [...page.matchAll(/Page-(\d+)-/g)].map(([, number]) => Number(number)).sort((a, b) => a - b));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
