import { planSchema } from './plan/plan.schema';
import { printerSchema } from './printer/printer.schema';
import { form } from './settings/form';
import { ticketSchema } from './ticket/ticket.schema';

/** Schemas of what is read from data of any origin. */
export const readable = {
  ticket: ticketSchema,
  form: form.schema,
  printer: printerSchema,
  plan: planSchema,
} as const satisfies Readonly<Record<string, object>>;

export type Readable = keyof typeof readable;

/** How they are read, in the words of Ajv. */
export const validating = {
  allErrors: false,
  discriminator: true,
  allowUnionTypes: true,
  strictTuples: false,
} as const;
