import { createRequire } from 'node:module';
import type { PDFDocumentProxy } from 'pdfjs-dist';

/** A file as pdf.js reads it; to be closed. */
export interface PdfJsFile {
  readonly document: PDFDocumentProxy;
  readonly close: () => Promise<void>;
}

/** Shapes of a browser that the library names as it loads, and needs only where it draws. */
const UNUSED_SHAPES = { DOMMatrix: class {}, ImageData: class {}, Path2D: class {} };

/**
 * In Node the library loads a canvas to draw on, half of the time that all of it takes; nothing is drawn here. So it finds
 * that the canvas is loaded already.
 */
function leaveOutCanvas(): void {
  const require = createRequire(import.meta.url);
  let path: string;
  try {
    path = require.resolve('@napi-rs/canvas');
  } catch {
    return;
  }
  require.cache[path] ??= { exports: UNUSED_SHAPES } as NodeJS.Module;
}

/** The library is loaded only when it is needed: it takes a third of a second. */
async function load() {
  leaveOutCanvas();
  const { push } = Array.prototype;
  // Puts the reader into this thread, where the library finds it instead of looking for a file.
  await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
  const library = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // Its build for older engines puts a slow one in place of the engine's own, for the sake of lists longer than memory.
  Object.defineProperty(Array.prototype, 'push', {
    value: push,
    writable: true,
    configurable: true,
    enumerable: false,
  });
  return library;
}

/** Loads what is slow to load, for a thread that has nothing else to do yet. */
export async function getReady(): Promise<void> {
  await load();
}

/** Opens a file with pdf.js; null where it cannot. */
export async function openWithPdfJs(bytes: Uint8Array): Promise<PdfJsFile | null> {
  const { getDocument, VerbosityLevel } = await load();
  // The library takes the bytes over, so it is given a copy; a plain one, since it refuses what is built upon one.
  const task = getDocument({ data: new Uint8Array(bytes), verbosity: VerbosityLevel.ERRORS });
  const close = (): Promise<void> => task.destroy();
  try {
    return { document: await task.promise, close };
  } catch {
    await close();
    return null;
  }
}
