import type { Attributes } from '@foglio/ipp';
import type { ServedPrinter } from '@foglio/ipp/serving';

/** A printer that tells something else of itself. */
export const telling = (printer: ServedPrinter, change: (told: Attributes) => Attributes): ServedPrinter => ({
  ...printer,
  describe: async (address) => change(await printer.describe(address)),
});

/** Attributes without some of them. */
export const without = (attributes: Attributes, isLeft: (name: string) => boolean): Attributes =>
  Object.fromEntries(Object.entries(attributes).filter(([name]) => !isLeft(name)));

/** Among the keywords of an attribute, those that are not of these. */
export const unnamed = (values: Attributes[string] | undefined, names: readonly string[]): Attributes[string] =>
  (values ?? []).filter((one) => one.tag !== 'keyword' || !names.includes(one.value));
