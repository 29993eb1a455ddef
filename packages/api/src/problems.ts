/** Everything the API refuses, each declared once: its code, status and title (RFC 9457). */
export const PROBLEMS = {
  'host-refused': { status: 403, title: 'This address is not served' },
  'origin-refused': { status: 403, title: 'Another site may not do this' },
  'not-found': { status: 404, title: 'There is no such thing' },
  'body-invalid': { status: 400, title: 'The request cannot be read' },
  'body-too-large': { status: 413, title: 'The request is too large' },
  'upload-broken-off': { status: 400, title: 'The file did not arrive whole' },
  'file-unusable': { status: 422, title: 'The file cannot be used' },
  'ticket-invalid': { status: 422, title: 'The set-up cannot be used' },
  'job-changed': { status: 409, title: 'The job was changed elsewhere' },
  'plan-changed': { status: 409, title: 'What will be printed has changed' },
  'stop-stands': { status: 409, title: 'Something must be settled first' },
  'caution-stands': { status: 409, title: 'Something must be confirmed first' },
  'delivery-not-over': { status: 409, title: 'The sending is not over' },
  'delivery-over': { status: 409, title: 'The sending is over' },
  'name-taken': { status: 409, title: 'Another has this name' },
  'setup-needed': { status: 409, title: 'New jobs start from this set-up' },
  'series-sent': { status: 409, title: 'The series is being sent' },
  'series-unfit': { status: 409, title: 'A file of the series cannot be printed so' },
  'printer-known': { status: 409, title: 'The printer is known already' },
  'printer-in-use': { status: 409, title: 'The printer is still needed' },
  'printer-refuses': { status: 409, title: 'The printer does not do this now' },
  'printer-away': { status: 502, title: 'The printer cannot be reached' },
  'database-away': { status: 503, title: 'The database does not answer' },
  internal: { status: 500, title: 'Something went wrong in Foglio' },
} as const;

export type ProblemCode = keyof typeof PROBLEMS;
