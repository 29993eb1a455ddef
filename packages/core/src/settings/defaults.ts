interface Fragment {
  readonly default?: unknown;
  readonly properties?: Readonly<Record<string, Fragment>>;
  readonly items?: Fragment | readonly Fragment[];
  readonly oneOf?: readonly { readonly properties: { readonly kind: { readonly const?: unknown } } }[];
}

/** Data with every default of its schema (JSON Schema, draft 7) filled in; the data is left as it was, and not checked. */
export function filledIn(schema: object, data: unknown): unknown {
  const { items, oneOf, properties } = schema as Fragment;
  if (Array.isArray(data)) return items ? data.map((one) => filledIn(items, one)) : data;
  if (typeof data !== 'object' || data === null) return data;
  const kind = (data as { readonly kind?: unknown }).kind;
  const parts = oneOf?.find((one) => one.properties.kind.const === kind)?.properties ?? properties ?? {};
  const filled: Record<string, unknown> = { ...data };
  for (const [name, part] of Object.entries(parts as Readonly<Record<string, Fragment>>)) {
    const value = filled[name] === undefined ? part.default : filled[name];
    if (value !== undefined) filled[name] = filledIn(part, value);
  }
  return filled;
}
