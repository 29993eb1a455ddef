import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import { Problem } from './problem';

const ajv = addFormats(new Ajv({ allErrors: false, allowUnionTypes: true }));

/** A reader of what comes in by a JSON Schema. It throws Problem `body-invalid`. */
export function readerOf(schema: object, by = ajv): (given: unknown) => unknown {
  const validate = by.compile(schema);
  return (given) => {
    if (validate(given)) return given;
    const error = validate.errors?.[0];
    const place = error?.instancePath ? `${error.instancePath.slice(1).replaceAll('/', '.')} ` : '';
    throw new Problem('body-invalid', `${place}${error?.message ?? 'cannot be read'}.`);
  };
}

const uuid = ajv.compile({ type: 'string', format: 'uuid' });
const isId = (parameter: string): boolean => uuid(parameter);

/** A path parameter that must be an id; any other is an address of nothing. @throws Problem `not-found` */
export function idOf(parameter: string): string {
  if (!isId(parameter)) throw new Problem('not-found', `"${parameter}" is not an id.`);
  return parameter;
}
