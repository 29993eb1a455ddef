export { readDetails, type PageDetails } from './details';
export { pageSizes, readFacts, type PdfFacts } from './facts';
export { impose, type ImposeInput } from './impose';
export { PdfError, tooMuch, type PdfTrouble } from './pdf-error';
export { takeIn, type TakenIn } from './intake/take-in';
export { getReady } from './pdfjs';
export { inScratchFolder } from './scratch';
export { renderPage } from './render-page';
export { writeReport, type Report } from './report';
