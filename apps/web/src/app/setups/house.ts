import type { SetupRecord } from '@foglio/api';
import type { Ticket } from '@foglio/core';

/** The set-up that new jobs for a printer start from: its own, or that of the house. */
export function houseFor(setups: readonly SetupRecord[], printerId: string | undefined): SetupRecord | null {
  const own = setups.find((one) => one.starts === 'printer' && one.printerId === printerId);
  return own ?? setups.find(({ starts }) => starts === 'house') ?? null;
}

/** The ticket of {@link houseFor}. */
export const houseTicket = (setups: readonly SetupRecord[], printerId: string | undefined): Ticket | null =>
  houseFor(setups, printerId)?.ticket ?? null;
