import { v5 } from 'uuid';

/** Of a printer that has no identifier of its own: one that stays the same under its name (RFC 4122, 4.3). */
export const nameUuid = (name: string): string => v5(name, v5.URL);
