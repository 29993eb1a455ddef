import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import type { FromSchema, JSONSchema } from 'json-schema-to-ts';
import { Problem } from './problem';

const ajv = addFormats(new Ajv({ allErrors: false }));

/** A reader of request bodies or parameters by a JSON Schema. The reader throws Problem `body-invalid`. */
export function bodyReader<const S extends JSONSchema>(schema: S): (body: unknown) => FromSchema<S> {
  const validate = ajv.compile(schema as object);
  return (body) => {
    if (validate(body)) return body as FromSchema<S>;
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
