import { existsSync } from 'node:fs';
import { programMissing } from '@foglio/pdf';
import type { Browser, LaunchOptions } from 'playwright-core';

/** Where Debian's packages put it; the one without windows starts in half the time. */
const PROGRAMS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** A browser that lays documents out, and what is to be done once one is through with it. */
export interface LentBrowser {
  readonly browser: Browser;
  readonly giveBack: () => Promise<void>;
}

/** @throws PdfError `program-missing` where there is none */
export type LendBrowser = () => Promise<LentBrowser>;

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

/** Starts a browser for one document, and ends it after that. */
export const lendOwnBrowser: LendBrowser = async () => {
  const { chromium } = await import('playwright-core');
  const browser = await chromium.launch(chromiumOptions());
  return { browser, giveBack: () => browser.close() };
};

/** Uses a browser that runs already. @param endpoint where it is reached */
export const lendFrom =
  (endpoint: string): LendBrowser =>
  async () => {
    const { chromium } = await import('playwright-core');
    const browser = await chromium.connect(endpoint);
    return { browser, giveBack: () => browser.close() };
  };

/** A browser that others use until it ends. */
export interface ServedBrowser {
  /** An address that nobody can guess, on this machine alone. */
  readonly endpoint: string;
  readonly ended: Promise<void>;
  readonly close: () => Promise<void>;
}

/** Starts a browser for many documents. @throws PdfError `program-missing` */
export async function serveBrowser(): Promise<ServedBrowser> {
  const { chromium } = await import('playwright-core');
  const server = await chromium.launchServer({ ...chromiumOptions(), host: '127.0.0.1' });
  return {
    endpoint: server.wsEndpoint(),
    ended: new Promise((resolve) => void server.once('close', () => resolve())),
    close: () => server.close(),
  };
}
