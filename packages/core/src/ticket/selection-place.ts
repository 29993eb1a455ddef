import { SelectionError } from '../pages/selection-error';
import { TicketError } from './ticket-error';

/** Runs a reading of a selection and gives its error the place in the ticket. */
export function inPlace<T>(place: () => string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof SelectionError)) throw error;
    const { message, position, length, expected, repair } = error;
    throw new TicketError(place(), message, `expected ${expected}`, position, length, repair);
  }
}
