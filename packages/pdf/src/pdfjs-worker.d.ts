/** The library ships no types for its reader, which is imported for its effect alone. */
declare module 'pdfjs-dist/legacy/build/pdf.worker.mjs';
