/** A schema in which nothing is filled in. */
export type WithoutDefaults<S> = S extends readonly unknown[]
  ? { readonly [K in keyof S]: WithoutDefaults<S[K]> }
  : S extends object
    ? { readonly [K in keyof S as K extends 'default' ? never : K]: WithoutDefaults<S[K]> }
    : S;

/** In a route nothing is filled in: what it leaves out is the ticket's. No field of a ticket is called "default". */
export function withoutDefaults<const S>(schema: S): WithoutDefaults<S> {
  if (Array.isArray(schema)) return schema.map(withoutDefaults) as WithoutDefaults<S>;
  if (typeof schema !== 'object' || schema === null) return schema as WithoutDefaults<S>;
  const parts = Object.entries(schema).filter(([name]) => name !== 'default');
  return Object.fromEntries(parts.map(([name, part]) => [name, withoutDefaults(part)])) as WithoutDefaults<S>;
}
