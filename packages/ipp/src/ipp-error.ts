/** A printer that could not be reached, or that refused. */
export class IppError extends Error {
  override readonly name = 'IppError';

  /**
   * @param status the standard's status code, or null where the printer did not answer in IPP
   * @param jobCreated whether the printer had already made a job of it, which it may or may not have got whole
   */
  constructor(
    message: string,
    readonly status: number | null,
    readonly jobCreated = false,
  ) {
    super(message);
  }
}
