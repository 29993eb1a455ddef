import { refusedBy, type Operation } from './operation';
import { OPERATIONS } from './operations';
import { PROBLEMS } from './problems';
import * as records from './records';

type Json = Readonly<Record<string, unknown>>;

/** Schemas that have a name of their own in the description: all that carry a title. */
class Components {
  readonly schemas: Record<string, unknown> = {};

  /** The schema as the description writes it: titled ones by reference, without what names them elsewhere. */
  write(schema: unknown): unknown {
    if (Array.isArray(schema)) return schema.map((part: unknown) => this.write(part));
    if (typeof schema !== 'object' || schema === null) return schema;
    const { $schema: _, $id: __, ...fields } = schema as Json;
    if (typeof fields['title'] !== 'string') return this.writeFields(fields);
    const name = fields['title'].replace(/[^A-Za-z0-9]+(.)/g, (_all, letter: string) => letter.toUpperCase());
    if (!(name in this.schemas)) {
      this.schemas[name] = null;
      this.schemas[name] = this.writeFields(fields);
    }
    return { $ref: `#/components/schemas/${name}` };
  }

  private writeFields(fields: Json): Json {
    return Object.fromEntries(
      Object.entries(fields).map(([key, value]) => [
        key,
        // A property may be called "title": of properties only the schemas under them are written anew.
        key === 'properties' ? this.writeProperties(value as Json) : this.write(value),
      ]),
    );
  }

  private writeProperties(properties: Json): Json {
    return Object.fromEntries(Object.entries(properties).map(([name, schema]) => [name, this.write(schema)]));
  }
}

const operations: readonly (readonly [string, Operation])[] = Object.entries(OPERATIONS);

/** The API as an OpenAPI 3.1 document (OpenAPI Specification 3.1.1), made from the schemas that the server reads by. */
export function describeApi(): Json & { readonly openapi: string; readonly paths: object } {
  const components = new Components();
  const paths: Record<string, Record<string, Json>> = {};
  for (const [name, operation] of operations) {
    const path = (paths[operation.path] ??= {});
    path[operation.method] = describeOperation(name, operation, components);
  }
  return {
    openapi: '3.1.1',
    info: {
      title: 'Foglio',
      version: '1',
      description: 'Set up a print job, see every sheet, send it as one job.',
    },
    servers: [{ url: '/' }],
    paths,
    components: { schemas: components.schemas },
  };
}

function describeOperation(name: string, operation: Operation, components: Components): Json {
  const { path, says, query, takes, status, gives } = operation;
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, parameter]) => ({
    name: parameter,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const required = (query as { required?: readonly string[] } | undefined)?.required ?? [];
  const inQuery = Object.entries(query?.properties ?? {}).map(([parameter, schema]) => ({
    name: parameter,
    in: 'query',
    required: required.includes(parameter),
    schema: components.write(schema),
  }));
  return {
    operationId: name,
    summary: says,
    parameters: [...inPath, ...inQuery],
    ...(takes ? { requestBody: { required: true, content: contentOf(takes, components) } } : {}),
    responses: {
      [status]: { description: says, ...(gives ? { content: contentOf(gives, components) } : {}) },
      ...describeProblems(operation, components),
    },
  };
}

/** What is refused, by its status; of one status there may be several. */
function describeProblems(operation: Operation, components: Components): Json {
  const schema = components.write(records.problemRecord);
  const problems: Record<number, Json> = {};
  for (const code of refusedBy(operation)) {
    const { status, title } = PROBLEMS[code];
    const told = problems[status] ? `${problems[status]['description'] as string} ` : '';
    problems[status] = {
      description: `${told}${code}: ${title}.`,
      content: { 'application/problem+json': { schema } },
    };
  }
  return problems;
}

/** A media type alone stands for bytes, which JSON Schema has no more to say of (OpenAPI 3.1.1, 4.8.14.3). */
function contentOf(what: NonNullable<Operation['gives']>, components: Components): Json {
  return typeof what === 'string' ? { [what]: {} } : { 'application/json': { schema: components.write(what) } };
}
