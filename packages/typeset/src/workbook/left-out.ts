/** What of a workbook is not printed, by the parts of its file. */
const PARTS: readonly (readonly [pattern: RegExp, said: (count: number) => string])[] = [
  [
    /^xl\/charts\/chart\d+\.xml$/,
    (count) => (count === 1 ? 'A chart is not printed.' : `${count} charts are not printed.`),
  ],
  [/^xl\/media\/.+/, (count) => (count === 1 ? 'A picture is not printed.' : `${count} pictures are not printed.`)],
  [
    /^xl\/chartsheets\/.+\.xml$/,
    (count) =>
      count === 1 ? 'A sheet that is a chart is not printed.' : `${count} sheets that are charts are not printed.`,
  ],
  [/^xl\/(vbaProject\.bin|macrosheets\/.+)$/, () => 'It holds macros; they were not run.'],
  [/^xl\/externalLinks\/externalLink\d+\.xml$/, () => 'Values from other files are as they were stored.'],
  [
    /^xl\/embeddings\/.+/,
    (count) => (count === 1 ? 'An embedded object is not printed.' : `${count} embedded objects are not printed.`),
  ],
];

/**
 * What of a workbook is not printed, in sentences.
 *
 * @param names of all parts of its file
 * @param sheets that are printed
 */
export function remarksOnLeftOut(
  names: readonly string[],
  sheets: readonly { readonly name: string; readonly tail: string }[],
): string[] {
  const byPart = PARTS.flatMap(([pattern, say]) => {
    const count = names.filter((name) => pattern.test(name)).length;
    return count > 0 ? [say(count)] : [];
  });
  const conditional = sheets
    .filter(({ tail }) => tail.includes('<conditionalFormatting'))
    .map(({ name }) => `“${name}”`);
  return conditional.length === 0
    ? byPart
    : [...byPart, `Colours that depend on values are not printed (${conditional.join(', ')}).`];
}
