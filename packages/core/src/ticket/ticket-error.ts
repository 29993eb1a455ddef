/** A ticket, printer profile or setting that cannot be used, with its place and the repair. */
export class TicketError extends Error {
  override readonly name = 'TicketError';

  /**
   * @param place where in the ticket, as a path: "routes[2].pages"
   * @param problem what is wrong there
   * @param repair what to write instead
   * @param position offset in the text at that place where it is a selection, from 0; otherwise null
   * @param length how many characters are at fault there
   * @param replacement a text to put in their place, or null where none is plain
   */
  constructor(
    readonly place: string,
    readonly problem: string,
    readonly repair: string,
    readonly position: number | null = null,
    readonly length = 0,
    readonly replacement: string | null = null,
  ) {
    const at = position === null ? '' : `, character ${position + 1}`;
    super(`${place}${at}: ${problem}; ${repair}`);
  }
}
