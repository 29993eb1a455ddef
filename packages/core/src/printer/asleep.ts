/** Why a printer takes a moment to begin (IANA registry of printer-state-reasons; from memory): nothing is wrong with it. */
const ASLEEP = ['standby', 'suspend', 'hibernate', 'power-saver'];

/** Whether it sleeps: it wakes up by itself when something is sent. */
export const isAsleep = (reasons: readonly string[]): boolean =>
  reasons.some((reason) => ASLEEP.includes(reason.replace(/-(error|warning|report)$/, '')));
