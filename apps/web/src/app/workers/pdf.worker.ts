// pdf.js brings its own worker; this file only makes the bundler build it as one of ours.
import 'pdfjs-dist/build/pdf.worker.mjs';
