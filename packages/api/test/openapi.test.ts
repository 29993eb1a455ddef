import type { DocumentFacts } from '@foglio/core';
import type { FromSchema } from 'json-schema-to-ts';
import { type aboutDocumentSchema, type headingSchema, type pageFactsSchema } from '@foglio/core';
import { describeApi, OPERATIONS, PROBLEMS, type SendingRecord, type FileRecord, type JobBrief } from '../src';

interface Described {
  readonly paths: Readonly<
    Record<string, Readonly<Record<string, { operationId: string; parameters: { name: string }[] }>>>
  >;
  readonly components: { readonly schemas: Readonly<Record<string, Readonly<Record<string, unknown>>>> };
}
const described = describeApi() as unknown as Described;

test('every operation is described once, with all parameters of its path', () => {
  const found = Object.entries(described.paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([method, { operationId, parameters }]) => {
      const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
      expect(parameters.slice(0, inPath.length).map(({ name }) => name)).toEqual(inPath);
      return [operationId, method, path];
    }),
  );
  const declared = Object.entries(OPERATIONS).map(([name, { method, path }]) => [name, method, path]);
  expect(found.sort()).toEqual(declared.sort());
});

test('what has a title is described once and referred to, and every reference leads somewhere', () => {
  const text = JSON.stringify(described);
  const references = [...text.matchAll(/"\$ref":"#\/components\/schemas\/(\w+)"/g)].map(([, name]) => name as string);
  expect(references.length).toBeGreaterThan(40);
  expect(new Set(references)).toEqual(new Set(Object.keys(described.components.schemas)));
  expect(Object.keys(described.components.schemas)).toEqual(
    expect.arrayContaining(['Ticket', 'PrinterProfile', 'PageFacts']),
  );
  // A field of that name is no title of a schema.
  expect(described.components.schemas['Ticket']).toHaveProperty('properties.title.type', 'string');
  expect(text).not.toContain('"$id"');
});

test('every problem has its own code and a status that is an error', () => {
  expect(described.components.schemas['Problem']).toHaveProperty('properties.code.enum', Object.keys(PROBLEMS));
  for (const { status } of Object.values(PROBLEMS)) expect(status).toBeGreaterThanOrEqual(400);
});

test('types follow from the schemas: all fields are there but those that need not be', () => {
  // @ts-expect-error most of the fields are missing
  const file: FileRecord = { id: 'one', name: 'one.pdf' };
  // @ts-expect-error there is no such state
  const state: SendingRecord['state'] = 'printed';
  const sheets: number | undefined = ({} as JobBrief).sheets;
  expect([file.name, state, sheets]).toEqual(['one.pdf', 'printed', undefined]);
});

/** Both ways: what the core calls facts is what the schemas describe, and the other way round. */
test('the core’s facts and their schemas are the same', () => {
  type Facts = DocumentFacts['pages'][number];
  type Mutable<T> = {
    -readonly [K in keyof T]: T[K] extends readonly number[] | null | undefined ? number[] | null : T[K];
  };
  const asDescribed = (facts: Mutable<Facts>): FromSchema<typeof pageFactsSchema> => facts;
  const back = (facts: Omit<FromSchema<typeof pageFactsSchema>, 'content'>): Omit<Facts, 'content'> => facts;
  const heading = (one: FromSchema<typeof headingSchema>): NonNullable<FileRecord['outline']>[number] => one;
  const about = (one: FromSchema<typeof aboutDocumentSchema>): FileRecord['about'] => one;
  expect(back(asDescribed({ width: 1, height: 2 }))).toEqual({ width: 1, height: 2 });
  expect(heading({ title: 'One', level: 1, page: 1, top: 0 }).page).toBe(1);
  expect(about({}).title).toBeUndefined();
});
