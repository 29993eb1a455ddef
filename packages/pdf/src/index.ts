export { readFacts } from './facts';
export { impose, type ImposeInput } from './impose';
export { PdfError, type PdfTrouble } from './pdf-error';
