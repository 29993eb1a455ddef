import Ajv from 'ajv';
import { carriedBy, fragmentOf, KNOWN, settingOf, SETTINGS, TOLD, type SettingName } from '../src/settings';
import { plainTicket } from '../src/ticket/plain-ticket';
import { ticketSettings } from '../src/ticket/ticket';
import { ticketSchema } from '../src/ticket/ticket.schema';
import { printerSchema } from '../src/printer/printer.schema';
import { readTicket } from '../src/validate';

const NAMES = Object.keys(SETTINGS) as SettingName[];
const ajv = new Ajv({ discriminator: true, allowUnionTypes: true, strictTuples: false });
/** A second opinion: the validator of the registry fills in what JSON Schema calls defaults. */
const filling = new Ajv({ discriminator: true, allowUnionTypes: true, strictTuples: false, useDefaults: true });

test.each(NAMES)('%s: its default is one of its values, and it says what it means', (name) => {
  const { schema, carriers } = settingOf(name);
  expect(schema.description).toMatch(/^[A-Z].{5,}/);
  expect(ajv.compile(schema)(schema.default)).toBe(true);
  expect(carriers.length).toBeGreaterThan(0);
});

test('defaults are filled in as the validator would', () => {
  const written = {
    version: 1,
    documents: [{ file: 'a' }, { file: 'b', pages: '2-' }],
    layout: { kind: 'booklet' },
    lines: [{ at: 'top-left', text: 'x' }],
    routes: [{ pages: '1', layout: { kind: 'grid' }, paper: {} }],
  };
  const copy: unknown = structuredClone(written);
  expect(filling.compile(ticketSchema)(copy)).toBe(true);
  expect(readTicket(written)).toEqual(copy);
  expect(readTicket({ version: 1, documents: [{ file: 'a' }] })).toEqual(plainTicket(['a']));
  // In a route nothing is filled in.
  expect(readTicket(written).routes).toEqual(written.routes);
});

test('whatever a route carries rules its pages', () => {
  expect(Object.keys(ticketSettings(plainTicket(['a']))).sort()).toEqual(carriedBy('route').sort());
});

test.each(KNOWN)('a printer that has $field answers it, and is read so again', ({ field, schema, read, answer }) => {
  expect(printerSchema.properties).toHaveProperty(field, schema);
  const values =
    (schema as { type?: string }).type === 'boolean' ? [true, false] : [(schema as { default: unknown }).default];
  for (const value of values) expect(read(answer(value as never))).toEqual(value);
});

test('no attribute is told twice; a word of the standard stands for each value of the setting that has other words', () => {
  expect(new Set(TOLD.map(({ attribute }) => attribute)).size).toBe(TOLD.length);
  for (const { name, values } of TOLD) {
    if (!values) continue;
    const { items, enum: all = items?.enum ?? [true, false] } = settingOf(name).schema as {
      enum?: readonly unknown[];
      items?: { enum: readonly unknown[] };
    };
    expect(Object.keys(values).sort()).toEqual(all.map(String).sort());
  }
});

test('a fragment is found by its place', () => {
  expect(fragmentOf('documents.rotate').default).toBe(0);
  expect(fragmentOf('layout.creep').maximum).toBe(5);
  expect(fragmentOf('paper.type').default).toBeNull();
});
