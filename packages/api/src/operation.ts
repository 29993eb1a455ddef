import type { JSONSchema } from 'json-schema-to-ts';
import type { ProblemCode } from './problems';
import type { Described } from './record';

/**
 * One thing the API does, said once: the server binds and checks its routes by these, clients are typed by them, and the
 * description is written from them. Paths are written as OpenAPI writes them, their parameters in braces.
 */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  /** In a sentence. */
  readonly says: string;
  readonly query?: JSONSchema & { readonly properties: Readonly<Record<string, object>> };
  /** A schema of JSON, or a media type of bytes. */
  readonly takes?: JSONSchema | string;
  readonly status: number;
  /** A schema of JSON, a media type of bytes, or nothing. */
  readonly gives?: JSONSchema | string;
  /** What it refuses beside what any may ({@link refusedBy}). */
  readonly refuses?: readonly ProblemCode[];
}

/** The schema of a list of such. */
export const list = <const S>(items: S) => ({ type: 'array', items }) as const;

type Names<Path> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | Names<Rest> : never;
type OfSchema<S> = S extends string ? unknown : S extends JSONSchema ? Described<S> : undefined;

/** What is given with a request: the parameters of the path, those behind it, and the body where it is JSON. */
export type ParamsOf<O extends Operation> = { readonly [Name in Names<O['path']>]: string };
export type QueryOf<O extends Operation> = OfSchema<O['query']>;
export type BodyOf<O extends Operation> = OfSchema<O['takes']>;
/** What is answered, where it is JSON. */
export type AnswerOf<O extends Operation> = OfSchema<O['gives']>;

/** The path with its parameters filled in, percent-encoded. */
export const addressOf = (
  { path }: Pick<Operation, 'path'>,
  params: Readonly<Record<string, string | number>>,
): string => path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(params[name] as string));

/** Whatever is asked, by whomever, may be refused so. */
const BY_ANY: readonly ProblemCode[] = ['host-refused', 'origin-refused', 'database-away', 'disk-full', 'internal'];

/** Everything an operation may refuse: a path with parameters may lead nowhere, what is given may be unreadable. */
export const refusedBy = ({ path, query, takes, refuses = [] }: Operation): readonly ProblemCode[] => [
  ...new Set<ProblemCode>([
    ...(path.includes('{') ? (['not-found'] as const) : []),
    ...(query || takes ? (['body-invalid'] as const) : []),
    ...(takes ? (['body-too-large', 'encoding-unknown'] as const) : []),
    ...refuses,
    ...BY_ANY,
  ]),
];
