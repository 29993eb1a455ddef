import { setTimeout as wait } from 'node:timers/promises';

/**
 * What PostgreSQL and its driver say where the database cannot be reached, is stopping or is starting (PostgreSQL, appendix
 * A: class 08 and 57P01 to 57P03).
 */
const AWAY = /^(08...|57P0[123]|ECONNREFUSED|ECONNRESET|EPIPE)$/;
const BROKEN_OFF = /Connection terminated|connection timeout|Client has encountered a connection error/i;

/** Whether an error only means that the database does not answer now. */
export function isDatabaseAway(error: unknown): boolean {
  for (let at = error; typeof at === 'object' && at !== null; at = (at as { cause?: unknown }).cause) {
    const { code, message, errors } = at as { code?: unknown; message?: string; errors?: unknown };
    // An error from a printer's connection has such a code too, but the printer's client gives its own.
    if ((typeof code === 'string' && AWAY.test(code)) || BROKEN_OFF.test(message ?? '')) return true;
    // Of several addresses that were tried.
    if (Array.isArray(errors)) return errors.some(isDatabaseAway);
  }
  return false;
}

const ASK_EVERY_MS = 500;

/** A server that is told to end meanwhile must not wait for ever. */
const GIVE_UP_AFTER_MS = 5 * 60_000;

/** Does something in the database as soon as it answers; what fails for another reason fails. The work may be done twice. */
export async function onceDatabaseAnswers<T>(work: () => Promise<T>): Promise<T> {
  for (const until = Date.now() + GIVE_UP_AFTER_MS; ;) {
    try {
      return await work();
    } catch (error) {
      if (!isDatabaseAway(error) || Date.now() > until) throw error;
      await wait(ASK_EVERY_MS);
    }
  }
}
