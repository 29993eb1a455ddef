/** Exit status (model, Command line): done; a stop stands; bad input or usage. */
export const DONE = 0;
export const STOPPED = 1;
export const BAD_INPUT = 2;
