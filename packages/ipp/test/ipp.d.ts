/** The second opinion has no types of its own. */
declare module 'ipp' {
  /** Of each attribute of that syntax: what its numbers are called. */
  export const enums: Readonly<Record<string, { readonly lookup?: Readonly<Record<number, string>> } | undefined>>;
  export function parse(message: Buffer): {
    version: string;
    operation?: string;
    statusCode?: string;
    id: number;
    [group: string]: unknown;
    'job-attributes-tag'?: Record<string, unknown>;
  };
}
