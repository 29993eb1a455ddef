import type { Request, RequestHandler, Response } from 'express';
import { decodeMessage, encodeMessage } from '@foglio/ipp';
import type { Manner } from './manner';

/** Answers of a printer's own kind: whatever serves it behind this goes on as if nothing were. */
export function strangely({ answers, says, sends, dripMs, hangsUpAfter = [] }: Manner): RequestHandler {
  return (request, response, next) => {
    if (answers?.(request, response)) return;
    if (hangsUpAfter.length > 0) {
      whenRead(request, (operation) => {
        if (hangsUpAfter.includes(operation)) response.end = (() => response.destroy()) as never;
      });
    }
    if (says || sends || dripMs) {
      answerWith(
        response,
        (bytes) => {
          const said = says ? encodeMessage(says(decodeMessage(bytes).message)) : bytes;
          return sends?.(said) ?? said;
        },
        dripMs,
      );
    }
    next();
  };
}

/** Hears which operation is asked for, while somebody else reads the request. */
function whenRead(request: Request, hear: (operation: number) => void): void {
  const parts = request[Symbol.asyncIterator].bind(request);
  request[Symbol.asyncIterator] = async function* () {
    let isFirst = true;
    for await (const part of parts() as AsyncIterable<Buffer>) {
      // RFC 8010, section 3.1.2: behind the version.
      if (isFirst) hear(part.readUInt16BE(2));
      isFirst = false;
      yield part;
    }
  } as never;
}

/** Sends other bytes than those it is ended with, a few at a time where it is slow. */
function answerWith(response: Response, change: (bytes: Uint8Array) => Uint8Array, dripMs = 0): void {
  const end = response.end.bind(response) as (bytes?: Uint8Array) => Response;
  const head = response.writeHead.bind(response) as (status: number, headers: Record<string, unknown>) => Response;
  let given: [number, Record<string, unknown>] = [200, {}];
  response.writeHead = ((status: number, headers: Record<string, unknown>) => {
    given = [status, headers];
    return response;
  }) as never;
  response.end = ((bytes: Uint8Array) => {
    const changed = change(bytes);
    head(given[0], { ...given[1], 'Content-Length': changed.length });
    if (dripMs === 0) return end(changed);
    let at = 0;
    const drip = setInterval(() => {
      if (response.destroyed || at >= changed.length) {
        clearInterval(drip);
        return void end();
      }
      response.write(changed.subarray(at, (at += 1)));
    }, dripMs).unref();
    response.flushHeaders();
    return response;
  }) as never;
}
