import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { RequestHandler } from 'express';
import { pinoHttp } from 'pino-http';
import { log } from '../log';

/** Under which a request stands in the log, for whoever asks about it. */
const HEADER = 'X-Request-Id';

/** Of an address its path: names of files come behind it. */
const pathOf = ({ url = '' }: { readonly url?: string | undefined }): string => url.replace(/\?.*$/s, '');

/** Logs every request of the API with its status and time, and gives each an id. */
export const logRequests: RequestHandler = pinoHttp<IncomingMessage, ServerResponse>({
  logger: log,
  genReqId: (_, response) => {
    const id = randomUUID();
    response.setHeader(HEADER, id);
    return id;
  },
  serializers: {
    req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, path: pathOf({ url }) }),
    res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
  },
  autoLogging: { ignore: ({ url = '' }) => !url.startsWith('/api/') },
  // What a person did wrong is no trouble of the server's; what failed is logged where it did.
  customLogLevel: (_, { statusCode }) => (statusCode >= 500 ? 'warn' : 'info'),
  // Once, and not with every answer that it leads to.
  customErrorObject: (_request, _response, _error, value: object) => ({ ...value, err: undefined }),
});
