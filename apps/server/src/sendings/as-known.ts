import type { Marked } from '@foglio/ipp';
import type { StoredSending } from './sending-store';

/** As printers show who sent what comes from here, where nobody said. */
export const USER = 'foglio';

/** By what printers' jobs of one sending are known again, and of no other: another installation's are never touched. */
export const markOf = (sending: Pick<StoredSending, 'id' | 'userName'>): Marked => ({
  mark: `#${sending.id.slice(0, 8)}`,
  userName: userOf(sending),
});

/** Whose it is at its printer. */
export const userOf = ({ userName }: Pick<StoredSending, 'userName'>): string => userName ?? USER;
