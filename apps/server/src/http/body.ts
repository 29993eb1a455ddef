import { Ajv, type Options } from 'ajv';
import addFormats from 'ajv-formats';
import { Problem } from './problem';

/** As the database takes it: the package's own format takes "urn:uuid:" too (RFC 9562, 4). */
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** A checker of what comes in. */
export const checker = (options: Options): Ajv =>
  addFormats(new Ajv({ allowUnionTypes: true, ...options })).addFormat('uuid', UUID);

const ajv = checker({});

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

/** A path parameter that must be an id; any other is an address of nothing. @throws Problem `not-found` */
export function idOf(parameter: string): string {
  if (!UUID.test(parameter)) throw new Problem('not-found', `"${parameter}" is not an id.`);
  return parameter;
}

/**
 * Text that no database keeps, in anything that came in: NUL, and halves of letters (PostgreSQL 8.3 and 8.14; Unicode, 3.9, D75).
 *
 * @returns what is the matter with it; null: nothing
 */
export function unfitText(given: unknown): string | null {
  if (typeof given === 'string') {
    if (given.includes('\0')) return 'Text with a NUL in it cannot be kept.';
    return given.isWellFormed() ? null : 'Text with half of a letter in it cannot be kept.';
  }
  if (typeof given !== 'object' || given === null) return null;
  for (const [key, value] of Object.entries(given)) {
    const found = unfitText(key) ?? unfitText(value);
    if (found) return found;
  }
  return null;
}
