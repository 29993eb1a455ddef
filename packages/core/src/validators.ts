import { Ajv, type ValidateFunction } from 'ajv';
import type { Form } from './pages/laid-out';
import type { Plan } from './plan/plan';
import type { Printer } from './printer/printer';
import { readable, validating, type Readable } from './readable';
import type { Ticket } from './ticket/ticket';

const ajv = new Ajv({
  ...validating,
  // Shorter code for the validator is not worth its making: that took longer than all the reading of a program's life.
  code: { optimize: false },
});

/** Compiled where it is first asked for: a program that reads tickets only does not wait for the other schemas. */
function compiled<T>(name: Readable): () => ValidateFunction<T> {
  let validate: ValidateFunction<T> | undefined;
  return () => (validate ??= ajv.compile<T>(readable[name]));
}

// What is bundled for Node has the code that this makes, in place of what makes it: see `scripts/validators.mjs`.
export const ticketValidator = compiled<Ticket>('ticket');
export const formValidator = compiled<Form>('form');
export const printerValidator = compiled<Printer>('printer');
export const planValidator = compiled<Plan>('plan');
