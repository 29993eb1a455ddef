import * as bodies from './bodies';
import { list, type AnswerOf, type BodyOf, type Operation } from './operation';
import { FILE_OPERATIONS } from './file-operations';
import * as output from './output-records';
import { PRINTER_OPERATIONS } from './printer-operations';
import * as records from './records';
import { SERIES_OPERATIONS } from './series-operations';
import { SPEND_OPERATIONS } from './spend-operations';

/** Each by its name. */
export const OPERATIONS = {
  describeApi: {
    method: 'get',
    path: '/api/openapi.json',
    says: 'This description.',
    status: 200,
    gives: { type: 'object', required: ['openapi', 'paths'] },
  },

  health: {
    method: 'get',
    path: '/api/health',
    says: 'What the server holds, and for how long it has run.',
    status: 200,
    refuses: ['database-away'],
    gives: records.healthRecord,
  },
  alive: {
    method: 'get',
    path: '/api/health/live',
    says: 'Whether the server runs: asked by what would start it again.',
    status: 204,
  },
  ready: {
    method: 'get',
    path: '/api/health/ready',
    says: 'Whether the server can do its work: asked by what would send it requests.',
    status: 204,
    refuses: ['database-away'],
  },

  ...FILE_OPERATIONS,

  jobs: {
    method: 'get',
    path: '/api/jobs',
    says: 'Jobs in brief, the latest changed first.',
    query: bodies.whichJobs,
    status: 200,
    gives: records.jobList,
  },
  createJob: {
    method: 'post',
    path: '/api/jobs',
    says: 'Sets up a job.',
    takes: bodies.newJob,
    status: 201,
    refuses: ['ticket-invalid', 'not-found'],
    gives: records.jobRecord,
  },
  job: {
    method: 'get',
    path: '/api/jobs/{id}',
    says: 'A job.',
    status: 200,
    refuses: ['ticket-invalid'],
    gives: records.jobRecord,
  },
  saveTicket: {
    method: 'put',
    path: '/api/jobs/{id}',
    says: 'Keeps a changed ticket.',
    takes: bodies.changedTicket,
    status: 200,
    refuses: ['ticket-invalid', 'job-changed', 'series-sent'],
    gives: records.savedJob,
  },
  changePrinter: {
    method: 'put',
    path: '/api/jobs/{id}/printer',
    says: 'Has a job printed elsewhere.',
    takes: bodies.changedPrinter,
    status: 200,
    refuses: ['job-changed', 'series-sent'],
    gives: records.savedJob,
  },
  removeJob: { method: 'delete', path: '/api/jobs/{id}', says: 'Removes a job.', status: 204 },
  imposedPdf: {
    method: 'get',
    path: '/api/jobs/{id}/imposed.pdf',
    says: 'One set of a job, imposed.',
    query: bodies.savedName,
    status: 200,
    refuses: ['ticket-invalid', 'stop-stands', 'file-unusable'],
    gives: 'application/pdf',
  },
  sheetList: {
    method: 'get',
    path: '/api/jobs/{id}/sheets.csv',
    says: 'The sheets of one set, a line each (RFC 4180).',
    query: bodies.savedName,
    status: 200,
    refuses: ['ticket-invalid'],
    gives: 'text/csv',
  },

  setups: {
    method: 'get',
    path: '/api/setups',
    says: 'All saved set-ups, by their names; the one that new jobs start from comes first.',
    status: 200,
    gives: list(records.setupRecord),
  },
  saveSetup: {
    method: 'post',
    path: '/api/setups',
    says: 'Keeps what a ticket says, but for its documents, under a name.',
    takes: bodies.newSetup,
    status: 201,
    refuses: ['ticket-invalid', 'name-taken', 'not-found'],
    gives: records.setupRecord,
  },
  changeSetup: {
    method: 'put',
    path: '/api/setups/{id}',
    says: 'Changes a set-up, calls it otherwise, or has new jobs start from it.',
    takes: bodies.changedSetup,
    status: 200,
    refuses: ['ticket-invalid', 'name-taken', 'setup-needed', 'setup-changed'],
    gives: records.setupRecord,
  },
  removeSetup: {
    method: 'delete',
    path: '/api/setups/{id}',
    says: 'Removes a set-up.',
    status: 204,
    refuses: ['setup-needed'],
  },

  ...SERIES_OPERATIONS,
  ...SPEND_OPERATIONS,

  queues: {
    method: 'get',
    path: '/api/queues',
    says: 'Where other programs can print to: the Desk, and the set-ups that are offered as printers.',
    status: 200,
    gives: list(records.queueRecord),
  },
  incoming: {
    method: 'get',
    path: '/api/incoming',
    says: 'What other programs printed lately, the latest first.',
    status: 200,
    gives: list(records.incomingRecord),
  },

  ...PRINTER_OPERATIONS,

  sendings: {
    method: 'get',
    path: '/api/sendings',
    says: 'What was sent, the latest first.',
    status: 200,
    gives: list(records.sendingRecord),
  },
  send: {
    method: 'post',
    path: '/api/sendings',
    says: 'Sends a job, if it is still what the person saw.',
    takes: bodies.toSend,
    status: 202,
    refuses: [
      'not-found',
      'ticket-invalid',
      'job-changed',
      'plan-changed',
      'stop-stands',
      'caution-stands',
      'printer-away',
    ],
    gives: records.sendingRecord,
  },
  sending: {
    method: 'get',
    path: '/api/sendings/{id}',
    says: 'How a sending goes.',
    status: 200,
    gives: records.sendingRecord,
  },
  placeSending: {
    method: 'put',
    path: '/api/sendings/{id}/place',
    says: 'Puts a sending that waits here before another for the same printer, or after all of them.',
    takes: bodies.sendingPlace,
    status: 200,
    refuses: ['sending-under-way'],
    gives: records.sendingRecord,
  },
  again: {
    method: 'post',
    path: '/api/sendings/{id}/again',
    says: 'Sends once more what is over: all of it, or sheets of it.',
    takes: bodies.toPrintAgain,
    status: 202,
    refuses: ['sending-not-over'],
    gives: records.sendingRecord,
  },
  'other-sets': {
    method: 'post',
    path: '/api/sendings/{id}/other-sets',
    says: 'Sends the other sets: a person has looked at the first.',
    takes: bodies.toSendAgain,
    status: 202,
    refuses: ['sending-not-over'],
    gives: records.sendingRecord,
  },
  'first-alone': {
    method: 'post',
    path: '/api/sendings/{id}/first-alone',
    says: 'Leaves it at the first set: the others are not printed.',
    status: 200,
    refuses: ['sending-not-over'],
    gives: records.sendingRecord,
  },
  cancel: {
    method: 'post',
    path: '/api/sendings/{id}/cancel',
    says: 'Cancels what is not over.',
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-over', 'sending-not-over', 'printer-away', 'printer-refuses'],
  },
  hold: {
    method: 'post',
    path: '/api/sendings/{id}/hold',
    says: 'Has the printer keep a job that it has not begun.',
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-over', 'sending-not-over', 'printer-refuses'],
  },
  release: {
    method: 'post',
    path: '/api/sendings/{id}/release',
    says: 'Has the printer go on with a held job.',
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-over', 'sending-not-over', 'printer-refuses'],
  },
  'came-out': {
    method: 'post',
    path: '/api/sendings/{id}/came-out',
    says: 'A person saw that all of it came out, where nobody else could know.',
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-not-over'],
  },
  'first-pass': {
    method: 'post',
    path: '/api/sendings/{id}/first-pass',
    says: 'Begins the fronts of a job in two passes once more.',
    takes: bodies.toSendAgain,
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-not-over'],
  },
  'second-pass': {
    method: 'post',
    path: '/api/sendings/{id}/second-pass',
    says: 'Begins the backs of a job in two passes: its stack is in again.',
    takes: bodies.toSendAgain,
    status: 200,
    gives: records.sendingRecord,
    refuses: ['sending-not-over'],
  },
  sheets: {
    method: 'get',
    path: '/api/sendings/{id}/sheets',
    says: 'The sheets of a set, which of them it prints, and the first that did not come out.',
    status: 200,
    refuses: ['ticket-invalid'],
    gives: output.sheetsRecord,
  },
  seen: {
    method: 'get',
    path: '/api/sendings/{id}/seen',
    says: 'What the printer is told of each sheet.',
    status: 200,
    refuses: ['ticket-invalid'],
    gives: output.seenRecord,
  },
  stack: {
    method: 'get',
    path: '/api/sendings/{id}/stack',
    says: 'What a simulated printer delivered.',
    status: 200,
    refuses: ['printer-away'],
    gives: output.stackRecord,
  },
  sendingDocument: {
    method: 'get',
    path: '/api/sendings/{id}/jobs/{job}/documents/{document}',
    says: 'A file that a simulated printer was sent.',
    status: 200,
    refuses: ['printer-away'],
    gives: 'application/pdf',
  },
  news: {
    method: 'get',
    path: '/api/news',
    says: 'What changes, as it changes: a WebSocket (RFC 6455) on which each message is one such record.',
    status: 101,
    refuses: ['upgrade-required'],
    gives: records.newsRecord,
  },
} as const satisfies Readonly<Record<string, Operation>>;

export type OperationName = keyof typeof OPERATIONS;

/** What can be done to a sending. */
export type SendingAct =
  | 'again'
  | 'came-out'
  | 'cancel'
  | 'hold'
  | 'release'
  | 'first-pass'
  | 'second-pass'
  | 'other-sets'
  | 'first-alone';

/** What each takes and answers, where that is JSON. As tables, of which the compiler works out each entry once. */
export type Bodies = { readonly [Name in OperationName]: BodyOf<(typeof OPERATIONS)[Name]> };
export type Answers = { readonly [Name in OperationName]: AnswerOf<(typeof OPERATIONS)[Name]> };
