import { DrizzleQueryError } from 'drizzle-orm';

/** What went wrong in a sentence. */
export const messageOf = (error: unknown): string => String((forLog(error) as Partial<Error>).message ?? error);

/** What to write into the log of an error: of a failed query what the database said, not all that was asked of it. */
export const forLog = (error: unknown): unknown =>
  error instanceof DrizzleQueryError ? (error.cause ?? 'a query failed') : error;

/** Whether a write failed since another row has the same value where a unique index allows only one (PostgreSQL 23505). */
export function violatesUnique(error: unknown, index: string): boolean {
  const { code, constraint } = (forLog(error) ?? {}) as { code?: string; constraint?: string };
  return code === '23505' && constraint === index;
}
