/** A text that names no pages, or pages that are not there; all that a screen needs to mend it on the spot. */
export class SelectionError extends Error {
  override readonly name = 'SelectionError';

  /**
   * @param message what is wrong, in a sentence without the position
   * @param position offset of the first character at fault, from 0
   * @param length how many characters are at fault; 0 at the end of the text
   * @param expected what was expected there
   * @param repair a text to put in place of the characters at fault, or null where none is plain
   */
  constructor(
    message: string,
    readonly position: number,
    readonly length: number,
    readonly expected: string,
    readonly repair: string | null,
  ) {
    super(message);
  }
}
