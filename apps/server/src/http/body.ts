import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import type { FromSchema, JSONSchema } from 'json-schema-to-ts';
import { Problem } from './problem';

const ajv = addFormats(new Ajv({ allErrors: false }));

/** A reader of request bodies or parameters by a JSON Schema. The reader throws Problem `body-invalid`. */
export const bodyReader = <const S extends JSONSchema>(schema: S) => reader<FromSchema<S>>(schema as object);

/** A reader of bodies that are one field and nothing else. */
export const fieldReader = <const N extends string, const S extends JSONSchema>(name: N, schema: S) =>
  reader<Readonly<Record<N, FromSchema<S>>>>({
    type: 'object',
    additionalProperties: false,
    required: [name],
    properties: { [name]: schema },
  });

function reader<T>(schema: object): (body: unknown) => T {
  const validate = ajv.compile(schema);
  return (body) => {
    if (validate(body)) return body as T;
    const error = validate.errors?.[0];
    const place = error?.instancePath ? `${error.instancePath.slice(1).replaceAll('/', '.')} ` : '';
    throw new Problem('body-invalid', `${place}${error?.message ?? 'cannot be read'}.`);
  };
}

const readId = bodyReader({ type: 'string', format: 'uuid' });

/** A path parameter that must be an id; any other is an address of nothing. @throws Problem `not-found` */
export function idOf(parameter: string | undefined): string {
  try {
    return readId(parameter);
  } catch {
    throw new Problem('not-found', `"${parameter}" is not an id.`);
  }
}
