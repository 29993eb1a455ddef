import { join } from 'node:path';
import type { PrinterAddress } from '@foglio/ipp';
import type { StoredAccess } from './stored-access';
import { Vault } from './vault';

/** What it takes, as a person says it. */
export interface SaidAccess {
  readonly fingerprint?: string | null;
  readonly login?: { readonly name: string; readonly password: string } | null;
}

/** Where the key of passwords lies, unless the environment says otherwise. */
const SECRET = join('.foglio', 'secret');

const vault = new Vault(process.env['FOGLIO_SECRET'] ?? SECRET);

interface AskedPrinter {
  readonly uri: string;
  readonly access: StoredAccess | null;
}

/** A printer as it is asked: with what it takes to be let in. */
export function addressOf({ uri, access }: AskedPrinter): PrinterAddress {
  if (!access) return uri;
  const { fingerprint, login } = access;
  const password = login && vault.open(login.sealed);
  return { uri, access: { fingerprint, login: login && password !== null ? { name: login.name, password } : null } };
}

/** What is kept, with what was said laid over it; null where nothing is left. */
export function withAccess(before: StoredAccess | null, said: SaidAccess): StoredAccess | null {
  const { fingerprint = before?.fingerprint ?? null } = said;
  const login =
    said.login === undefined
      ? (before?.login ?? null)
      : said.login && { name: said.login.name, sealed: vault.seal(said.login.password) };
  return fingerprint === null && login === null ? null : { fingerprint, login };
}
