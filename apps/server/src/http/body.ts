import type { Described } from '@foglio/api';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import type { JSONSchema } from 'json-schema-to-ts';
import { Problem } from './problem';

const ajv = addFormats(new Ajv({ allErrors: false, allowUnionTypes: true }));

/** A reader of request bodies or parameters by a JSON Schema. The reader throws Problem `body-invalid`. */
export const bodyReader = <const S extends JSONSchema>(schema: S) => reader<Described<S>>(schema as object);

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
