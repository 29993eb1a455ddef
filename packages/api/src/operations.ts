import * as bodies from './bodies';
import { list, type Operation } from './operation';
import * as records from './records';
import { SERIES_OPERATIONS } from './series-operations';

/** Each by its name. */
export const OPERATIONS = {
  describeApi: {
    method: 'get',
    path: '/api/openapi.json',
    says: 'This description.',
    status: 200,
    gives: { type: 'object', required: ['openapi', 'paths'] },
  },

  uploadFile: {
    method: 'post',
    path: '/api/files',
    says: 'Takes in a PDF, an image or plain text. The header Document-Password, percent-encoded, opens a locked one.',
    query: bodies.fileName,
    takes: 'application/octet-stream',
    status: 201,
    gives: records.fileRecord,
  },
  filesNamed: {
    method: 'get',
    path: '/api/files',
    says: 'The files of a name, each content once.',
    query: bodies.fileName,
    status: 200,
    gives: list(records.fileBrief),
  },
  file: { method: 'get', path: '/api/files/{id}', says: 'A file’s facts.', status: 200, gives: records.fileRecord },
  newFacts: {
    method: 'get',
    path: '/api/files/{id}/facts',
    says: 'What became known of a file’s pages since so many were.',
    query: bodies.knownPages,
    status: 200,
    gives: records.factsRecord,
  },
  fileContent: {
    method: 'get',
    path: '/api/files/{id}/content',
    says: 'A file as it was taken in.',
    status: 200,
    gives: 'application/pdf',
  },

  jobs: {
    method: 'get',
    path: '/api/jobs',
    says: 'All jobs in brief, the latest changed first.',
    status: 200,
    gives: list(records.jobBrief),
  },
  createJob: {
    method: 'post',
    path: '/api/jobs',
    says: 'Sets up a job.',
    takes: bodies.newJob,
    status: 201,
    gives: records.jobRecord,
  },
  job: { method: 'get', path: '/api/jobs/{id}', says: 'A job.', status: 200, gives: records.jobRecord },
  saveTicket: {
    method: 'put',
    path: '/api/jobs/{id}',
    says: 'Keeps a changed ticket.',
    takes: bodies.changedTicket,
    status: 200,
    gives: records.savedJob,
  },
  changePrinter: {
    method: 'put',
    path: '/api/jobs/{id}/printer',
    says: 'Has a job printed elsewhere.',
    takes: bodies.changedPrinter,
    status: 200,
    gives: records.savedJob,
  },
  removeJob: { method: 'delete', path: '/api/jobs/{id}', says: 'Removes a job.', status: 204 },
  imposedPdf: {
    method: 'get',
    path: '/api/jobs/{id}/imposed.pdf',
    says: 'One set of a job, imposed.',
    query: bodies.savedName,
    status: 200,
    gives: 'application/pdf',
  },
  sheetList: {
    method: 'get',
    path: '/api/jobs/{id}/sheets.csv',
    says: 'The sheets of one set, a line each (RFC 4180).',
    query: bodies.savedName,
    status: 200,
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
    gives: records.setupRecord,
  },
  changeSetup: {
    method: 'put',
    path: '/api/setups/{id}',
    says: 'Changes a set-up, calls it otherwise, or has new jobs start from it.',
    takes: bodies.changedSetup,
    status: 200,
    gives: records.setupRecord,
  },
  removeSetup: { method: 'delete', path: '/api/setups/{id}', says: 'Removes a set-up.', status: 204 },

  ...SERIES_OPERATIONS,

  printers: {
    method: 'get',
    path: '/api/printers',
    says: 'All printers; new jobs are for the first.',
    status: 200,
    gives: list(records.printerRecord),
  },
  addPrinter: {
    method: 'post',
    path: '/api/printers',
    says: 'Takes up a printer by its address, if it answers there.',
    takes: bodies.printerAddress,
    status: 201,
    gives: records.printerRecord,
  },
  printer: {
    method: 'get',
    path: '/api/printers/{id}',
    says: 'A printer.',
    status: 200,
    gives: records.printerRecord,
  },
  removePrinter: {
    method: 'delete',
    path: '/api/printers/{id}',
    says: 'Forgets a printer that nothing was sent to.',
    status: 204,
  },
  describePaper: {
    method: 'put',
    path: '/api/printers/{id}/trays/{tray}',
    says: 'Notes what a person says of a tray’s paper, for as long as it is of this size.',
    takes: bodies.saidOfPaper,
    status: 200,
    gives: records.printerRecord,
  },
  loadTray: {
    method: 'put',
    path: '/api/printers/{id}/panel/trays/{tray}',
    says: 'Loads a simulated printer’s tray.',
    takes: bodies.trayLoading,
    status: 200,
    gives: records.printerRecord,
  },
  pullTray: {
    method: 'put',
    path: '/api/printers/{id}/panel/trays/{tray}/pulled',
    says: 'Pulls a simulated printer’s tray out, or pushes it in.',
    takes: bodies.trayPulling,
    status: 200,
    gives: records.printerRecord,
  },
  setFault: {
    method: 'put',
    path: '/api/printers/{id}/panel/fault',
    says: 'Jams a simulated printer, opens its door, or clears both.',
    takes: bodies.printerFault,
    status: 200,
    gives: records.printerRecord,
  },
  refeed: {
    method: 'put',
    path: '/api/printers/{id}/panel/refeed',
    says: 'Puts the stack in a simulated printer’s output back into its tray.',
    takes: bodies.stackRefeeding,
    status: 200,
    gives: records.printerRecord,
  },
  pausePrinter: {
    method: 'put',
    path: '/api/printers/{id}/panel/paused',
    says: 'Pauses a simulated printer, or has it go on.',
    takes: bodies.printerPausing,
    status: 200,
    gives: records.printerRecord,
  },
  output: {
    method: 'get',
    path: '/api/printers/{id}/panel/output',
    says: 'What lies in a simulated printer’s output, the lowest sheet first.',
    status: 200,
    gives: records.stackRecord,
  },
  takeOutput: {
    method: 'put',
    path: '/api/printers/{id}/panel/output',
    says: 'Takes away all that lies in a simulated printer’s output.',
    takes: bodies.stackTaking,
    status: 200,
    gives: records.printerRecord,
  },
  outputDocument: {
    method: 'get',
    path: '/api/printers/{id}/panel/jobs/{job}/documents/{document}',
    says: 'A file that a simulated printer was sent.',
    status: 200,
    gives: 'application/pdf',
  },

  deliveries: {
    method: 'get',
    path: '/api/deliveries',
    says: 'What was sent, the latest first.',
    status: 200,
    gives: list(records.deliveryRecord),
  },
  send: {
    method: 'post',
    path: '/api/deliveries',
    says: 'Sends a job, if it is still what the person saw.',
    takes: bodies.sending,
    status: 202,
    gives: records.deliveryRecord,
  },
  delivery: {
    method: 'get',
    path: '/api/deliveries/{id}',
    says: 'How a sending goes.',
    status: 200,
    gives: records.deliveryRecord,
  },
  again: {
    method: 'post',
    path: '/api/deliveries/{id}/again',
    says: 'Sends once more what is over.',
    takes: bodies.sendingAgain,
    status: 202,
    gives: records.deliveryRecord,
  },
  ...acts({
    cancel: [200, 'Cancels what is not over.'],
    hold: [200, 'Has the printer keep a job that it has not begun.'],
    release: [200, 'Has the printer go on with a held job.'],
    'first-pass': [200, 'Begins the fronts of a job in two passes once more.', bodies.sendingAgain],
    'second-pass': [200, 'Begins the backs of a job in two passes: its stack is in again.', bodies.sendingAgain],
  }),
  seen: {
    method: 'get',
    path: '/api/deliveries/{id}/seen',
    says: 'What the printer is told of each sheet.',
    status: 200,
    gives: records.seenRecord,
  },
  stack: {
    method: 'get',
    path: '/api/deliveries/{id}/stack',
    says: 'What a simulated printer delivered.',
    status: 200,
    gives: records.stackRecord,
  },
  deliveryDocument: {
    method: 'get',
    path: '/api/deliveries/{id}/jobs/{job}/documents/{document}',
    says: 'A file that a simulated printer was sent.',
    status: 200,
    gives: 'application/pdf',
  },
  news: {
    method: 'get',
    path: '/api/news',
    says: 'What changes, as it changes: a WebSocket (RFC 6455) on which each message is one such record.',
    status: 101,
    gives: records.newsRecord,
  },
} as const satisfies Readonly<Record<string, Operation>>;

/** What can be done with a delivery that is not over. */
type Act = 'cancel' | 'hold' | 'release' | 'first-pass' | 'second-pass';

/** What can be done to a sending. */
export type DeliveryAct = Act | 'again';

type Acts = { readonly [A in Act]: Operation };

function acts(told: {
  readonly [A in Act]: readonly [status: number, says: string, takes?: Operation['takes']];
}): Acts {
  const each = Object.entries(told).map(([act, [status, says, takes]]) => [
    act,
    {
      method: 'post',
      path: `/api/deliveries/{id}/${act}`,
      says,
      ...(takes ? { takes } : {}),
      status,
      gives: records.deliveryRecord,
    },
  ]);
  return Object.fromEntries(each) as Acts;
}
