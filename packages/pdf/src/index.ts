export { readDetails, type PageDetails } from './details';
export { pageSizes, readFacts, type PdfFacts } from './facts';
export { inFormat } from './raster/in-format';
export { writeRaster } from './raster/write-raster';
export { impose, imposeParts, type ImposeInput } from './impose';
export {
  damagedDocument,
  lockedDocument,
  notKnown,
  noRoom,
  programMissing,
  wrongDocumentPassword,
  PdfError,
  tooMuch,
  unfitForm,
  type PdfTrouble,
} from './pdf-error';
export { finish, newDocument } from './intake/made-pages';
export { pagesOfPlaces } from './intake/named-places';
export { collectOften } from './collect-often';
export { completePrinted } from './intake/browser-pdf';
export type { NamedHeading } from './intake/outline';
export { kindOf, type FileKind } from './intake/kind';
export { takeIn, takeInMade, takeInPictures, type TakenIn } from './intake/take-in';
export { patience } from './patience';
export { memoryOf, memoryOfTree } from './process-use';
export { compilePdfium, startPdfium, usePdfium } from './pdfium';
export { inScratchFolder, scratchPrefix, sweepScratch } from './scratch';
export { rehearse } from './rehearse';
export { renderPage } from './render-page';
export { writeReport, type Report } from './report';
