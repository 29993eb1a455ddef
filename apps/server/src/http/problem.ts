import type { ErrorRequestHandler, Response } from 'express';

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
  'printer-known': { status: 409, title: 'The printer is known already' },
  'printer-in-use': { status: 409, title: 'The printer is still needed' },
  'printer-refuses': { status: 409, title: 'The printer does not do this now' },
  'printer-away': { status: 502, title: 'The printer cannot be reached' },
  internal: { status: 500, title: 'Something went wrong in Foglio' },
} as const;

export type ProblemCode = keyof typeof PROBLEMS;

/** An error that reaches the client as `application/problem+json`. */
export class Problem extends Error {
  override readonly name = 'Problem';

  /**
   * @param detail one sentence: what is wrong here and what to do
   * @param extra further members of the problem document
   */
  constructor(
    readonly code: ProblemCode,
    detail: string,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
  }
}

export function sendProblem(response: Response, { code, message, extra }: Problem): void {
  const { status, title } = PROBLEMS[code];
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: `urn:foglio:problem:${code}`, title, status, detail: message, code, ...extra }));
}

/** The last handler: every error becomes a problem document; what is not ours is logged and told without its inside. */
export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  // Whoever asked has gone in the middle of the answer: there is nobody to tell, and nothing is wrong here.
  if (isGone(error)) return void response.destroy();
  if (response.headersSent) return void next(error);
  if (error instanceof Problem) return void sendProblem(response, error);
  const parsed = bodyProblem(error);
  if (parsed) return void sendProblem(response, parsed);
  console.error(`${request.method} ${request.path}:`, error);
  sendProblem(response, new Problem('internal', 'The error was logged. Try again; nothing stored was changed.'));
};

const isGone = (error: unknown): boolean => (error as { code?: string } | null)?.code === 'ERR_STREAM_PREMATURE_CLOSE';

/** What Express' own body readers throw. */
function bodyProblem(error: unknown): Problem | null {
  const { type, message } = (error ?? {}) as { type?: string; message?: string };
  if (type === 'entity.too.large') return new Problem('body-too-large', 'Send less at once.');
  if (type === 'entity.parse.failed') return new Problem('body-invalid', `This is not JSON: ${message ?? ''}`);
  return null;
}
