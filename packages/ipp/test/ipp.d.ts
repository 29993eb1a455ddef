/** The second opinion has no types of its own. */
declare module 'ipp' {
  export function parse(message: Buffer): {
    version: string;
    operation?: string;
    statusCode?: string;
    id: number;
    [group: string]: unknown;
    'job-attributes-tag'?: Record<string, unknown>;
  };
}
