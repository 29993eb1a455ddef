import type { ErrorObject, ValidateFunction } from 'ajv';
import type { Printer } from './printer/printer';
import type { Plan } from './plan/plan';
import { carriedBy } from './settings';
import { layout } from './settings/layout';
import type { Ticket } from './ticket/ticket';
import { TicketError } from './ticket/ticket-error';
import { storedPrinter, storedTicket } from './ticket/stored';
import { form } from './settings/form';
import type { Form } from './pages/laid-out';
import { formValidator, planValidator, printerValidator, ticketValidator } from './validators';

/** Compiles what is asked for first, which takes a tenth of a second, before anybody waits for it. */
export function prepareToRead(): void {
  ticketValidator();
  formValidator();
}

/**
 * A ticket read from data of any origin, every default filled in; the data itself (JSON) is left as it was.
 *
 * @throws TicketError naming the place and the repair; an unknown field is an error, never ignored
 */
export const readTicket = (data: unknown): Ticket => storedTicket(read(data, ticketValidator(), 'the ticket'));

/** A form of a document read from data of any origin. @throws TicketError */
export function readForm(data: unknown): Form {
  const asked = read(data, formValidator(), 'the form');
  const wrong = form.contradiction(asked);
  if (wrong) throw new TicketError(`form${wrong.part}`, wrong.problem, wrong.repair);
  return asked;
}

/** A printer profile read from data of any origin. @throws TicketError */
export const readPrinter = (data: unknown): Printer =>
  storedPrinter(read(data, printerValidator(), 'the printer profile'));

/** A plan read from data of any origin. @throws TicketError */
export const readPlan = (data: unknown): Plan => read(data, planValidator(), 'the plan');

function read<T>(data: unknown, validate: ValidateFunction<T>, whole: string): T {
  const copy: unknown = data === undefined ? undefined : JSON.parse(JSON.stringify(data));
  if (validate(copy)) return copy;
  throw sayError(telling(validate.errors ?? []), whole);
}

/**
 * Of the errors of alternatives, the one that tells most: that which lies deepest in what was written, and of those at one
 * place that which names a field. That all alternatives failed tells something of a route alone.
 */
function telling(errors: readonly ErrorObject[]): ErrorObject {
  const isWhole = ({ keyword }: ErrorObject): boolean => keyword === 'anyOf' || keyword === 'oneOf';
  const parts = errors.filter((error) => !isWhole(error));
  const depthOf = ({ instancePath }: ErrorObject): number => instancePath.split('/').length;
  const deepest = Math.max(...parts.map(depthOf));
  const there = parts.filter((error) => depthOf(error) === deepest);
  const one = there.find(({ keyword }) => keyword === 'required' || keyword === 'additionalProperties') ?? there[0];
  const ofRoute = errors.find((error) => isWhole(error) && error.schemaPath.endsWith('/routes/items/anyOf'));
  return (ofRoute && one?.keyword === 'required' ? ofRoute : (one ?? errors[0])) as ErrorObject;
}

function sayError(error: ErrorObject, whole: string): TicketError {
  const place = error.instancePath
    .replace(/\/(\d+)/g, '[$1]')
    .replace(/\//g, '.')
    .replace(/^\./, '');
  const { problem, repair } = sayKeyword(error);
  return new TicketError(place === '' ? whole : place, problem, repair);
}

function sayKeyword(error: ErrorObject): { problem: string; repair: string } {
  const params = error.params as Record<string, string>;
  switch (error.keyword) {
    case 'additionalProperties':
      return { problem: `unknown field "${params['additionalProperty']}"`, repair: 'remove it or correct its name' };
    case 'required':
      return { problem: `"${params['missingProperty']}" is missing`, repair: 'add it' };
    case 'enum':
      return {
        problem: 'not one of the possible values',
        repair: `write ${list(error.params['allowedValues'] as unknown[])}`,
      };
    case 'const':
      return { problem: 'another value is needed', repair: `write ${JSON.stringify(params['allowedValue'])}` };
    case 'type':
      return {
        problem: 'wrong type',
        repair: `write a value of type ${[error.params['type'] as string | string[]].flat().join(' or ')}`,
      };
    case 'minimum':
    case 'maximum':
    case 'exclusiveMinimum':
    case 'exclusiveMaximum':
      return { problem: 'out of range', repair: `write a number ${params['comparison']} ${params['limit']}` };
    case 'discriminator':
      return {
        problem: `${JSON.stringify(error.params['tagValue'])} is no known kind`,
        repair: `write the kind ${choice(KINDS)}`,
      };
    case 'minItems':
      return { problem: 'there are too few', repair: `give at least ${params['limit']}` };
    case 'maxItems':
      return { problem: 'there are too many', repair: `give at most ${params['limit']}` };
    case 'minLength':
      return { problem: 'it is empty', repair: 'write something there' };
    case 'maxLength':
      return { problem: 'it is too long', repair: `write at most ${params['limit']} characters` };
    case 'anyOf':
      return {
        problem: 'a route must change something',
        repair: `give it ${choice(carriedBy('route'))}`,
      };
    default:
      return { problem: error.message ?? 'cannot be used', repair: 'correct it' };
  }
}

/** Of layouts, the one thing that has kinds. */
const KINDS = layout.schema.oneOf.map(({ properties }) => JSON.stringify(properties.kind.const));

const list = (values: readonly unknown[]): string => values.map((value) => JSON.stringify(value)).join(', ');

const choice = (names: readonly string[]): string => `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`;
