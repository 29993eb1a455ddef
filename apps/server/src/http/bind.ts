import {
  OPERATIONS,
  type AnswerOf,
  type BodyOf,
  type Operation,
  type OperationName,
  type ParamsOf,
  type QueryOf,
} from '@foglio/api';
import { json, type Request, type RequestHandler, type Response, type Router } from 'express';
import { checker, readerOf, unfitText } from './body';
import { Problem } from './problem';

/** What is asked with a request, read by the schemas of its operation. */
export interface Asked<O extends Operation = Operation> {
  readonly params: ParamsOf<O>;
  readonly query: QueryOf<O>;
  readonly body: BodyOf<O>;
  /** Where bytes come or go. */
  readonly request: Request;
  readonly response: Response;
}

/** As it goes out: moments become text on the way. */
type Told<T> = string extends T ? T | Date : T extends object ? { readonly [Name in keyof T]: Told<T[Name]> } : T;

/** What the operation gives, written as JSON (RFC 8259) elsewhere: where it is long, that takes longer than one answer may. */
export class WrittenJson {
  constructor(readonly bytes: Uint8Array) {}
}

type Given<O extends Operation> = O['gives'] extends object ? Told<AnswerOf<O>> | WrittenJson : void;

/** Answers with what the operation gives; where that is bytes, it writes them itself. */
type Handler<O extends Operation> = (asked: Asked<O>) => Promise<Given<O>> | Given<O>;

/** One handler for each operation of those names. */
export type Handlers<Names extends OperationName> = {
  readonly [Name in Names]: Handler<(typeof OPERATIONS)[Name]>;
};

const readJson = json({ limit: '1mb' });

/** Parameters of an address are text, whatever the schema says they are. */
const ofQuery = checker({ coerceTypes: true });

type Answering = (asked: Asked<never>) => unknown;

/** Has a router serve operations: each under its method and path, with what comes in checked, and its own status. */
export function bind(router: Router, handlers: Partial<Handlers<OperationName>>): void {
  for (const [name, handle] of Object.entries(handlers)) {
    const operation: Operation = OPERATIONS[name as OperationName];
    const path = operation.path.replace(/\{(\w+)\}/g, ':$1');
    const readers: RequestHandler[] = typeof operation.takes === 'object' ? [readJson] : [];
    router[operation.method](path, ...readers, answerer(operation, handle as unknown as Answering));
  }
}

function answerer({ query, takes, status, gives }: Operation, handle: Answering): RequestHandler {
  const readQuery = query ? readerOf(query, ofQuery) : () => undefined;
  const readBody = typeof takes === 'object' ? readerOf(takes) : () => undefined;
  return async (request, response) => {
    if (unfitText(request.params)) throw new Problem('not-found', 'Nothing has a name of such letters.');
    const unfit = unfitText(request.query) ?? unfitText(request.body);
    if (unfit) throw new Problem('body-invalid', unfit);
    const asked: Asked<never> = {
      params: request.params,
      query: readQuery({ ...request.query }) as never,
      body: readBody(request.body ?? {}) as never,
      request,
      response: response.status(status),
    };
    const answer = await handle(asked);
    if (answer instanceof WrittenJson) response.type('json').end(answer.bytes);
    else if (typeof gives === 'object') response.json(answer);
    else if (gives === undefined) response.end();
  };
}
