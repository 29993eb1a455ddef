declare module 'commonmark-spec' {
  const spec: {
    readonly tests: readonly { readonly number: number; readonly markdown: string; readonly html: string }[];
  };
  export default spec;
}
