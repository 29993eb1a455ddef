declare module 'auth-header' {
  /** A challenge or an answer to one (RFC 7235, 2.1). */
  export function parse(header: string): {
    readonly scheme: string;
    readonly params: Readonly<Record<string, string | string[]>>;
  };
}
