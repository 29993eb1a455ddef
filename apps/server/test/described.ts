import { describeApi, OPERATIONS, refusedBy, type OperationName, type ProblemCode } from '@foglio/api';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import type { RequestListener } from 'node:http';

interface DescribedOperation {
  readonly operationId: string;
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, { schema?: object }>> }>>;
}

/** The API's own description, and what answers it was held against and found wanting. */
export class DescribedApi {
  readonly document = describeApi() as {
    paths: Readonly<Record<string, Readonly<Record<string, DescribedOperation>>>>;
  };
  readonly complaints: string[] = [];
  /** Operations that answered with what they are for. */
  readonly met = new Set<string>();
  private readonly ajv = addFormats(new Ajv2020({ strict: false, allErrors: false }));
  private readonly validators = new Map<string, ValidateFunction>();

  constructor() {
    this.ajv.addSchema(this.document, 'api');
  }

  /** Holds every answer that a server gives under /api against the description. */
  watch(serve: RequestListener): RequestListener {
    return (request, response) => {
      const { method = '', url = '' } = request;
      const parts: Buffer[] = [];
      const [write, end] = [response.write.bind(response), response.end.bind(response)];
      const keep = (part: unknown): void => {
        if (typeof part === 'string' || part instanceof Uint8Array) parts.push(Buffer.from(part));
      };
      response.write = ((part: unknown, ...rest: never[]) => (keep(part), write(part, ...rest))) as never;
      response.end = ((part: unknown, ...rest: never[]) => (keep(part), end(part as never, ...rest))) as never;
      response.on('finish', () => {
        const type = String(response.getHeader('content-type') ?? '');
        this.hold(method, url, response.statusCode, type, Buffer.concat(parts));
      });
      serve(request, response);
    };
  }

  /** Holds one answer against the description. @param type the answer's Content-Type */
  hold(method: string, url: string, status: number, type: string, body: Buffer): void {
    const path = new URL(url, 'http://localhost').pathname;
    if (!path.startsWith('/api/') || status === 304) return;
    const where = `${method} ${path} ${status}`;
    const found = this.find(method, path);
    // What there is not is answered too, with a problem.
    const answers = found?.[1].responses;
    const described = found ? answers?.[String(status)] : PROBLEM;
    if (found && status < 400) this.met.add(found[1].operationId);
    if (!described) return void this.complaints.push(`${where}: not described`);
    const media = type.split(';')[0] as string;
    const expected = Object.keys(described.content ?? {});
    if (body.length === 0 && expected.length === 0) return;
    if (!expected.includes(media)) return void this.complaints.push(`${where}: ${media}, not ${expected.join()}`);
    const schema =
      status < 400
        ? `api#/paths/${escape(found![0])}/${method.toLowerCase()}/responses/${status}/content/${escape(media)}/schema`
        : 'api#/components/schemas/Problem';
    if (!media.endsWith('json')) return;
    if (found && status >= 400) this.holdProblem(where, found[1].operationId as OperationName, body);
    const validate = this.validatorOf(schema);
    if (!validate(JSON.parse(body.toString()))) {
      this.complaints.push(`${where}: ${this.ajv.errorsText(validate.errors)}`);
    }
  }

  /** An operation refuses what it says that it refuses. */
  private holdProblem(where: string, name: OperationName, body: Buffer): void {
    const { code } = JSON.parse(body.toString()) as { code: ProblemCode };
    if (!refusedBy(OPERATIONS[name]).includes(code)) this.complaints.push(`${where}: ${name} does not say ${code}`);
  }

  /** The names of all operations. */
  get operations(): string[] {
    return Object.values(this.document.paths).flatMap((path) => Object.values(path).map((one) => one.operationId));
  }

  /** The path as described, and the operation. */
  private find(method: string, path: string): readonly [string, DescribedOperation] | null {
    for (const [described, operations] of Object.entries(this.document.paths)) {
      const pattern = new RegExp(`^${described.replace('.', '\\.').replace(/\{\w+\}/g, '[^/]+')}$`);
      const operation = operations[method.toLowerCase()];
      if (operation && pattern.test(path)) return [described, operation];
    }
    return null;
  }

  private validatorOf(schema: string): ValidateFunction {
    const known = this.validators.get(schema) ?? this.ajv.compile({ $ref: schema });
    this.validators.set(schema, known);
    return known;
  }
}

const PROBLEM = { content: { 'application/problem+json': {} } };

/** As a part of a JSON Pointer in an address (RFC 6901, sections 3 and 6). */
const escape = (part: string): string => encodeURIComponent(part.replaceAll('~', '~0').replaceAll('/', '~1'));
