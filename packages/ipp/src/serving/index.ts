/** The serving side of IPP: for Foglio as a printer, and for the simulated printers. */
export { answerRequest, isJobOver } from './answer';
export { whyRefused } from './loopback';
export { nameUuid } from './name-uuid';
export { withinOctets } from './octets';
export { scalings, takeUp, type TakenUp } from './take-up';
export { wordFor } from './told-words';
export { WISHED, wishesOf, type Wishes } from './wishes';
export { takesValues } from './takes-values';
export { BrokenOff, serveIpp, type ServingLimits } from './http';
export { answersOf, MULTIPLE_OPERATION_SECONDS, printerAttributes, type Described } from './printer-attributes';
export {
  Refusal,
  type Answer,
  type Creation,
  type IncomingDocument,
  type JobEvent,
  type ServedEvents,
  type ServedJob,
  type ServedPrinter,
} from './served-printer';
