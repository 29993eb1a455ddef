import type { BenchState } from './bench.state';
import type { Seen } from './seen';

/** Loading the page anew would lose the change, so it is not what is told. */
const NOT_SAVED =
  'Nothing was sent: the last change could not be saved. Change anything once more, and it is saved again.';
const CHANGED_ELSEWHERE = 'Nothing was sent: another window changed this job. Look at how it stands now first.';
const CHANGED_SINCE = 'Nothing was sent: it was changed after Send was pressed. Look at its sheets again, then send.';
const NOT_PLANNED = 'The sheets are still being worked out. Look at them, then send.';

/** What may be sent as things stand: what is on the screen, if it is of the ticket and the printer named there. */
export type Sendable =
  | { readonly seen: Seen; readonly why: null }
  | { readonly seen: null; /** Why nothing may be sent, in a sentence. */ readonly why: string };

/** The one place that decides what may be sent; button, key and dialog ask it. A change that is being saved is waited for. */
export function sendable(
  state: Pick<BenchState, 'seen' | 'ticket' | 'printer' | 'trouble' | 'saving' | 'sending'>,
): Sendable {
  const { seen, ticket, printer, trouble, saving, sending } = state;
  const no = (why: string): Sendable => ({ seen: null, why });
  if (sending) return no('It is being sent.');
  if (saving === 'conflict') return no(CHANGED_ELSEWHERE);
  if (saving === 'failed') return no(NOT_SAVED);
  if (trouble) return no(`Nothing was sent: ${trouble.problem}; ${trouble.repair}.`);
  if (!seen || seen.ticket !== ticket || seen.printer.id !== printer?.id) return no(NOT_PLANNED);
  const stop = seen.plan.checks.find(({ level }) => level === 'stop');
  return stop ? no(stop.message) : { seen, why: null };
}

/** Why what was seen when Send was pressed may not be sent any more; null where it may. */
export function whyNotSent(seen: Seen, state: BenchState): string | null {
  if (state.ticket !== seen.ticket || state.printer?.id !== seen.printer.id) return CHANGED_SINCE;
  return sendable({ ...state, sending: false, seen }).why;
}
