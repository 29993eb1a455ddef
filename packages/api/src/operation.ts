import type { JSONSchema } from 'json-schema-to-ts';

/** One thing the API does. Paths are written as OpenAPI writes them, their parameters in braces. */
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
}

/** The schema of a list of such. */
export const list = <const S>(items: S) => ({ type: 'array', items }) as const;
