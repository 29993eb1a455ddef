import type { JobDocument, PrinterRecord, SendingRecord } from '@foglio/api';
import type { PageFacts, PrinterInput } from '@foglio/core';
import { readPrinter } from '@foglio/core/validate';

/** Records as the server gives them, for specs: what a test does not ask about is as usual. */

export const aDocument = (pages: readonly PageFacts[], change: Partial<JobDocument> = {}): JobDocument => ({
  id: 'f',
  name: 'a.pdf',
  sha256: 'f'.repeat(64),
  about: {},
  remarks: [],
  read: 0,
  pages: [...pages],
  ...change,
});

export const aPrinter = (profile: PrinterInput, change: Partial<PrinterRecord> = {}): PrinterRecord => ({
  id: 'p',
  name: profile.name,
  uri: 'ipp://127.0.0.1:631/ipp/print',
  simulated: true,
  answers: true,
  askedAt: '2026-11-25T10:00:00Z',
  seenAt: '2026-11-25T10:00:00Z',
  login: null,
  wants: null,
  certificate: null,
  state: 'idle',
  reasons: [],
  pace: 1,
  heldBack: false,
  queued: null,
  supplies: [],
  faults: [],
  reportedSizes: {},
  profile: readPrinter(profile),
  ...change,
});

export const aSending = (change: Partial<SendingRecord> = {}): SendingRecord => ({
  id: 'a',
  jobId: 'j',
  printerId: 'p',
  title: 'Contract',
  copies: 1,
  state: 'queued',
  message: null,
  sheets: 10,
  sheetsDone: 0,
  seconds: null,
  printerJobs: [],
  pass: null,
  handling: null,
  portion: null,
  partOf: null,
  movable: false,
  turnAt: '2026-11-25T09:00:00Z',
  reason: null,
  createdAt: '2026-11-25T10:00:00Z',
  updatedAt: '2026-11-25T10:00:00Z',
  ...change,
});
