import canonicalize from 'canonicalize';
import type { Ticket } from './ticket';

/** Whether two tickets ask for the same, in whatever order their fields stand. */
export const isSameTicket = (one: Ticket, other: Ticket): boolean => canonicalize(one) === canonicalize(other);
