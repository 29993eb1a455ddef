import { existsSync } from 'node:fs';
import { programMissing } from '@foglio/pdf';
import type { LaunchOptions } from 'playwright-core';
import type { BrowserWork, LayInBrowser } from './laying';
import type { WordDocument } from '../word/read-word';
import { NextPage } from './next-page';
import type { PrintedPage } from './print-page';

/** Where Debian's packages put it; the one without windows starts in half the time. */
const PROGRAMS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/**
 * How it is started: without a network of any kind, whatever a document asks for.
 *
 * @throws PdfError `program-missing`
 */
function chromiumOptions(): LaunchOptions {
  const executablePath = PROGRAMS.find(existsSync);
  if (!executablePath) throw programMissing('Laying this document out', 'chromium-headless-shell', 'save it as PDF');
  return {
    executablePath,
    args: [
      '--disable-dev-shm-usage',
      '--disable-gpu',
      '--disable-background-networking',
      '--no-first-run',
      // Names lead nowhere, and so does every address.
      '--host-resolver-rules=MAP * ~NOTFOUND',
      '--proxy-server=127.0.0.1:9',
      // What a program of root's may not do in Debian.
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
    ],
  };
}

/** A browser that lays documents out, one beside the other, until it ends. */
export interface OpenBrowser {
  /** @param given where nobody waits for it any more, what is done is given up */
  readonly lay: (work: BrowserWork, given?: AbortSignal) => Promise<PrintedPage>;
  readonly ended: Promise<void>;
  readonly close: () => Promise<void>;
}

/**
 * Starts a browser.
 *
 * @param readyAfter milliseconds after a text document until the page for the next one is opened; null: when it comes
 * @throws PdfError `program-missing`
 */
export async function openBrowser(readyAfter: number | null = null): Promise<OpenBrowser> {
  const options = chromiumOptions();
  const { chromium } = await import('playwright-core');
  const browser = await chromium.launch(options);
  const next = new NextPage(
    async (isAhead) => (await import('./print-word')).openWordPage(browser, isAhead),
    readyAfter,
  );
  const layWord = async (document: WordDocument, given: AbortSignal): Promise<PrintedPage> => {
    const { printWord } = await import('./print-word');
    try {
      return await printWord({ browser, given }, document, next.take());
    } finally {
      next.getReady();
    }
  };
  return {
    lay: async (work, given = new AbortController().signal) =>
      work.kind === 'page'
        ? (await import('./print-page')).printPage({ browser, given }, work.document)
        : layWord(work.document, given),
    ended: new Promise((resolve) => void browser.once('disconnected', () => resolve())),
    close: () => {
      next.close();
      return browser.close();
    },
  };
}

/** Starts a browser for one document, and ends it after that. */
export const layAlone: LayInBrowser = async (work) => {
  const browser = await openBrowser();
  try {
    return await browser.lay(work);
  } finally {
    await browser.close();
  }
};
