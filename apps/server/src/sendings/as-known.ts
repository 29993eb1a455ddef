import type { StoredSending } from './sending-store';

/** As printers show who sent what comes from here. */
export const USER = 'foglio';

/** By what printers' jobs of one sending are known again, and of no other: another installation's are never touched. */
export const markOf = ({ id }: Pick<StoredSending, 'id'>): { readonly mark: string; readonly userName: string } => ({
  mark: `#${id.slice(0, 8)}`,
  userName: USER,
});
