import { readFile } from 'node:fs/promises';
import type { PrinterAddress } from '@foglio/ipp';
import { InputError, sayFileTrouble } from './input-error';

/** Options of every command that asks a printer. */
export interface AccessOptions {
  /** SHA-256 of the certificate to trust. */
  readonly trust?: string;
  /** A file with a name and, on its next line, a password. */
  readonly login?: string;
}

/** A printer with what it takes to ask it. @throws InputError where the file with the name cannot be read */
export async function addressOf(uri: string, { trust, login }: AccessOptions): Promise<PrinterAddress> {
  if (trust === undefined && login === undefined) return uri;
  const fingerprint = trust?.toUpperCase() ?? null;
  return { uri, access: { fingerprint, login: login === undefined ? null : await readLogin(login) } };
}

async function readLogin(path: string): Promise<{ readonly name: string; readonly password: string }> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch (error) {
    throw new InputError(path, sayFileTrouble(error));
  }
  const [name = '', password] = text.split(/\r?\n/);
  if (name === '' || password === undefined)
    throw new InputError(path, 'write the name on its first line and the password on the second');
  return { name, password };
}
