/** What of a text document is not printed as its own program does, by what is said of so many. */
const SAID = {
  chart: (count: number) => (count === 1 ? 'A chart is not printed.' : `${count} charts are not printed.`),
  diagram: (count: number) => (count === 1 ? 'A diagram is not printed.' : `${count} diagrams are not printed.`),
  shape: (count: number) => (count === 1 ? 'A drawn shape is not printed.' : `${count} drawn shapes are not printed.`),
  box: (count: number) =>
    count === 1
      ? 'A text box is printed after the paragraph it belongs to.'
      : `${count} text boxes are printed after the paragraphs they belong to.`,
  picture: (count: number) =>
    count === 1
      ? 'A picture of a form that only its own program draws is not printed.'
      : `${count} pictures of forms that only their own program draws are not printed.`,
  missing: (count: number) =>
    count === 1
      ? 'A picture is not with the file, and is not fetched.'
      : `${count} pictures are not with the file, and are not fetched.`,
  float: (count: number) =>
    count === 1
      ? 'A picture that floats on the page is printed beside the paragraph it belongs to.'
      : `${count} pictures that float on the page are printed beside the paragraphs they belong to.`,
  watermark: () => 'A text across its pages is not printed.',
  document: (count: number) =>
    count === 1 ? 'Another document within it is not printed.' : `${count} other documents within it are not printed.`,
  changes: (count: number) =>
    `${count === 1 ? 'A tracked change is' : `${count} tracked changes are`} printed as if taken over.`,
  comments: (count: number) => `${count === 1 ? 'A comment is' : `${count} comments are`} not printed.`,
} as const;

type LeftOut = keyof typeof SAID;

/** Counts what is left out while a document is read. */
export class Count {
  private readonly counts = new Map<LeftOut, number>();

  add(what: LeftOut, count = 1): void {
    if (count > 0) this.counts.set(what, (this.counts.get(what) ?? 0) + count);
  }

  /** In sentences. @param names of all parts of the file */
  remarks(names: readonly string[]): string[] {
    const runs = names.some((name) => /vbaProject|activeX/i.test(name));
    return [
      ...[...this.counts].map(([what, count]) => SAID[what](count)),
      ...(runs ? ['It holds macros; they were not run.'] : []),
    ];
  }
}
