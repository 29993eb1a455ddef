import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/** Bytes of the key (AES-256), and of what goes before the sealed text (GCM; NIST SP 800-38D, 5.2.1.1 and 5.2.1.2). */
const KEY = 32;
const NONCE = 12;
const TAG = 16;

const CIPHER = 'aes-256-gcm';

/**
 * Passwords of printers as they are kept: whoever has the database alone cannot read them. The key lies in a file beside it,
 * which is made where there is none yet.
 */
export class Vault {
  private key: Buffer | null = null;

  constructor(private readonly file: string) {}

  /** @throws Error where the key can neither be read nor made */
  seal(text: string): string {
    const nonce = randomBytes(NONCE);
    const cipher = createCipheriv(CIPHER, this.ownKey(), nonce);
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
  }

  /** What was sealed; null where it was sealed with another key, or is none: it has to be said anew. */
  open(sealed: string): string | null {
    const bytes = Buffer.from(sealed, 'base64');
    try {
      const decipher = createDecipheriv(CIPHER, this.ownKey(), bytes.subarray(0, NONCE));
      decipher.setAuthTag(bytes.subarray(NONCE, NONCE + TAG));
      return decipher.update(bytes.subarray(NONCE + TAG), undefined, 'utf8') + decipher.final('utf8');
    } catch {
      return null;
    }
  }

  private ownKey(): Buffer {
    if (this.key) return this.key;
    mkdirSync(dirname(this.file), { recursive: true });
    try {
      // Of several that begin at once one makes it.
      writeFileSync(this.file, randomBytes(KEY), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    const key = readFileSync(this.file);
    if (key.length !== KEY) throw new Error(`${this.file} is no key of ${KEY} bytes`);
    return (this.key = key);
  }
}
