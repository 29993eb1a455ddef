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

/** What of the engine of WebAssembly the types of Node leave out. */
interface Compiler {
  readonly compile: (bytes: Uint8Array) => Promise<WebAssembly.Module>;
  readonly instantiate: (code: WebAssembly.Module, imports: unknown) => Promise<unknown>;
}
const { WebAssembly: compiler } = globalThis as unknown as { readonly WebAssembly: Compiler };

/** Code that was compiled elsewhere. */
let compiled: WebAssembly.Module | null = null;

/** PDFium's code, to be shared by several threads. */
export const compilePdfium = async (): Promise<WebAssembly.Module> =>
  compiler.compile(
    new Uint8Array(await readFile(createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm'))),
  );

/** Starts with this code, in a thread that was given it. */
export const usePdfium = (code: WebAssembly.Module): void => void (compiled = code);

/** PDFium, once a thread; it takes a tenth of a second. */
export function startPdfium(): Promise<Pdfium> {
  engine ??= (async () => {
    const { init } = await import('@embedpdf/pdfium');
    const code = compiled ?? (await compilePdfium());
    const started = await init({
      instantiateWasm: (imports: unknown, done: (instance: unknown) => void) => {
        void compiler.instantiate(code, imports).then(done);
        return {};
      },
    });
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
