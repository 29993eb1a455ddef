import { customType } from 'drizzle-orm/pg-core';

/** A column of JSON that is read through a reader of its own, which brings to today's form what an older version kept. */
export const storedAs = <T>(name: string, read: (kept: unknown) => T) =>
  customType<{ data: T; driverData: unknown }>({
    dataType: () => 'jsonb',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: read,
  })(name);
