// PDFium's own way to lay four pages on a side, as a whole process: node pdfium-n-up.mjs SOURCE TARGET.
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const find = createRequire(new URL('../packages/pdf/package.json', import.meta.url));
const { init } = await import(find.resolve('@embedpdf/pdfium').replace(/index\.cjs$/, 'index.js'));
const [source, target] = process.argv.slice(2);
const code = readFileSync(find.resolve('@embedpdf/pdfium/pdfium.wasm'));
const pdfium = await init({ wasmBinary: new Uint8Array(code).buffer });
pdfium.PDFiumExt_Init();
const { malloc } = pdfium.pdfium.wasmExports;
const bytes = readFileSync(source);
const file = malloc(bytes.length);
pdfium.pdfium.HEAPU8.set(bytes, file);
const document = pdfium.FPDF_LoadMemDocument(file, bytes.length, '');
const laid = pdfium.FPDF_ImportNPagesToOne(document, 595.276, 841.89, 2, 2);
const writer = pdfium.PDFiumExt_OpenFileWriter();
pdfium.PDFiumExt_SaveAsCopy(laid, writer);
const size = pdfium.PDFiumExt_GetFileWriterSize(writer);
const out = malloc(size);
pdfium.PDFiumExt_GetFileWriterData(writer, out, size);
writeFileSync(target, pdfium.pdfium.HEAPU8.subarray(out, out + size));
