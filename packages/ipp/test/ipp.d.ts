/** The second opinion has no types of its own. */
declare module 'ipp' {
  /** Of each attribute of that syntax: what its numbers are called. */
  export const enums: Readonly<Record<string, { readonly lookup?: Readonly<Record<number, string>> } | undefined>>;
  export const parse: {
    handleUnknownTag: () => undefined;
    (message: Buffer): Parsed;
  };
  export interface Parsed {
    version: string;
    operation?: string;
    statusCode?: string;
    id: number;
    [group: string]: unknown;
    'job-attributes-tag'?: Record<string, unknown>;
  }
  /** Its client. */
  export class Printer {
    constructor(url: string);
    execute(
      operation: string,
      message: { readonly [group: string]: unknown } | null,
      done: (error: Error | null, answer: Parsed) => void,
    ): void;
  }
  /** As modules have it that are none of CommonJS. */
  const all: { readonly Printer: typeof Printer };
  export default all;
}
