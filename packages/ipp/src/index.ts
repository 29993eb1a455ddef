export { canonicalUri, withoutPassword } from './address';
export { IppError } from './ipp-error';
export { decodeMessage, IppDecodeError, type Decoded } from './decode';
export { encodeMessage } from './encode';
export { jobAttributes, type MediaWay, type SentSheets } from './job-attributes';
export * from './message';
export { PROFILE_ATTRIBUTES, readProfile } from './profile';
export { asSeen, type SheetAsSeen } from './as-seen';
export { sayFaults } from './faults';
export {
  askJob,
  askProfile,
  askStatus,
  cancelJob,
  dropIncoming,
  holdJob,
  pausePrinter,
  releaseJob,
  sendShipment,
  type PrinterStatus,
  validateShipment,
  type JobStatus,
  type SendInput,
} from './send';
export { shipmentOf, type Shipment, type ShippedDocument, type ShippedJob } from './shipment';
