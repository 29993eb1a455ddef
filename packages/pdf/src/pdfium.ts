import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { WrappedPdfiumModule } from '@embedpdf/pdfium';

/** A file that PDFium has open; to be closed. */
export interface OpenFile {
  readonly pdfium: Pdfium;
  /** @returns what the page gives; null where there is no such page. @param page counted from 1 */
  readonly onPage: <T>(page: number, read: (page: number) => T) => T | null;
  readonly close: () => void;
}

/** Functions of the engine without what wraps them, which takes ten times as long as they do: for every object of every page. */
type Raw = Readonly<Record<Extract<keyof WrappedPdfiumModule, `FPDF${string}`>, (...numbers: number[]) => number>>;

/** The engine, with its memory, of which a new view is made whenever it grows. */
export interface Pdfium extends WrappedPdfiumModule {
  readonly raw: Raw;
  readonly memory: () => Uint8Array;
  readonly allocate: (bytes: number) => number;
  readonly free: (address: number) => void;
}

/** What the module has beside its typed functions. */
interface Memory {
  readonly HEAPU8: Uint8Array;
  readonly wasmExports: Raw & {
    readonly malloc: (bytes: number) => number;
    readonly free: (address: number) => void;
  };
}

let engine: Promise<Pdfium> | null = null;

/** PDFium, once a process; it takes a tenth of a second. */
export function startPdfium(): Promise<Pdfium> {
  engine ??= (async () => {
    const { init } = await import('@embedpdf/pdfium');
    const path = createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm');
    const wasm = await readFile(path);
    const started = await init({ wasmBinary: new Uint8Array(wasm).buffer });
    started.PDFiumExt_Init();
    const module = started.pdfium as unknown as Memory;
    const { malloc, free } = module.wasmExports;
    return Object.assign(started, { raw: module.wasmExports, memory: () => module.HEAPU8, allocate: malloc, free });
  })();
  return engine;
}

/** Opens a file; null where PDFium cannot. */
export async function openWithPdfium(bytes: Uint8Array): Promise<OpenFile | null> {
  const pdfium = await startPdfium();
  const file = pdfium.allocate(bytes.length);
  pdfium.memory().set(bytes, file);
  const document = pdfium.FPDF_LoadMemDocument(file, bytes.length, '');
  if (document === 0) {
    pdfium.free(file);
    return null;
  }
  return {
    pdfium,
    onPage: (number, read) => {
      const page = pdfium.FPDF_LoadPage(document, number - 1);
      if (page === 0) return null;
      try {
        return read(page);
      } finally {
        pdfium.FPDF_ClosePage(page);
      }
    },
    close: () => {
      pdfium.FPDF_CloseDocument(document);
      pdfium.free(file);
    },
  };
}
