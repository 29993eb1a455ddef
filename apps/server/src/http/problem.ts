import { PROBLEMS, type Caution, type ProblemCode } from '@foglio/api';
import type { ErrorRequestHandler, Response } from 'express';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { diskFull } from './disk-full';
import { log } from '../log';

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

/** What a person has not confirmed yet. */
export const cautionsStand = (cautions: readonly Caution[]): Problem =>
  new Problem('caution-stands', cautions.map(({ message }) => message).join(' '), {
    cautions: cautions.map(({ code, message }) => ({ code, message })),
  });

function sendProblem(response: Response, { code, message, extra }: Problem): void {
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
  const asked = requestProblem(error);
  if (asked) return void sendProblem(response, asked);
  if (isDatabaseAway(error)) {
    return void sendProblem(
      response,
      new Problem('database-away', 'Try again in a moment; nothing stored was changed.'),
    );
  }
  const full = diskFull(error);
  if (full) return void sendProblem(response, new Problem('disk-full', full));
  log.error({ request: request.id, method: request.method, path: request.path, err: forLog(error) }, 'failed');
  sendProblem(response, new Problem('internal', 'The error was logged. Try again; nothing stored was changed.'));
};

const isGone = (error: unknown): boolean => (error as { code?: string } | null)?.code === 'ERR_STREAM_PREMATURE_CLOSE';

/** What Express itself finds wrong with a request, by the status that it gives it (RFC 9110, 15.5). */
function requestProblem(error: unknown): Problem | null {
  const { type, status, message = '' } = (error ?? {}) as { type?: string; status?: number; message?: string };
  switch (status) {
    case 400:
      if (type === 'entity.parse.failed') return new Problem('body-invalid', `This is not JSON: ${message}`);
      // Its letters are not percent-encoded as they should be (RFC 3986, 2.1).
      if (error instanceof URIError) return new Problem('not-found', 'There is nothing at this address.');
      return new Problem('body-invalid', 'It did not arrive whole.');
    case 413:
      return new Problem('body-too-large', 'Send less at once.');
    case 415:
      return new Problem('encoding-unknown', 'Send JSON in UTF-8, as it is or compressed by gzip, deflate or Brotli.');
    default:
      return null;
  }
}
