import { SelectionError } from '../src';

/** What a reading of a selection says is wrong. @throws Error where nothing is */
export function errorIn(read: () => unknown): SelectionError {
  try {
    read();
  } catch (error) {
    if (error instanceof SelectionError) return error;
    throw error;
  }
  throw new Error('it was read without an error');
}
