import { readFile, writeFile } from 'node:fs/promises';
import { damaged, printingForbidden, programMissing, wrongPassword } from '../pdf-error';
import { runProgram, type ProgramEnd } from '../program';
import { inScratchFolder } from '../scratch';

/** Debian's qpdf: it opens locked files and repairs damaged ones better than any library tried. */
const PROGRAM = 'qpdf';

/** Exit statuses (qpdf manual, "Exit Status"; of `--requires-password`: 0 one is needed, 2 not encrypted, 3 opens as it is). */
const WARNED = 3;
const NOT_ENCRYPTED = 2;
const ASKS_PASSWORD = 0;

/** How a file is locked. */
export type Lock = 'none' | 'opens' | 'asks' | 'unknown';

/**
 * Whether a file is encrypted and whether it opens without a password; "unknown" without qpdf. It is asked only where the
 * trailer may name a lock, which stands there in plain letters (ISO 32000-1, 7.5.5 and 7.5.8.2) unless a letter of its name
 * is written by its number, and what does that is told as locked by the reader.
 */
export const lockOf = async (bytes: Uint8Array): Promise<Lock> =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).includes('/Encrypt') ? askLock(bytes) : 'none';

const askLock = (bytes: Uint8Array): Promise<Lock> =>
  withFile(bytes, async (file) => {
    const end = await runProgram(PROGRAM, ['--requires-password', file]);
    if (end === 'missing') return 'unknown';
    if (end.status === ASKS_PASSWORD) return 'asks';
    return end.status === NOT_ENCRYPTED ? 'none' : 'opens';
  });

/**
 * The same file without encryption. The password is handed over on the program's input, where nobody else on the machine
 * can read it, and kept nowhere.
 *
 * @throws PdfError `wrong-password`; `printing-forbidden` where the file does not allow to be printed and the password is
 *   not its owner's (ISO 32000-1, table 22, bit 3); `program-missing`
 */
export const decrypt = (bytes: Uint8Array, password: string): Promise<Uint8Array> =>
  inScratchFolder(async (path) => {
    const [locked, open] = [path('locked.pdf'), path('open.pdf')];
    await writeFile(locked, bytes);
    const shown = found(await runProgram(PROGRAM, ['--password-file=-', '--show-encryption', locked], password));
    if (/incorrect password/i.test(shown.said)) throw wrongPassword();
    const byOwner = /supplied password is owner password/i.test(shown.said);
    if (/print low resolution: not allowed/i.test(shown.said) && !byOwner) throw printingForbidden();
    const end = found(await runProgram(PROGRAM, ['--password-file=-', '--decrypt', locked, open], password));
    if (end.status !== 0 && end.status !== WARNED) throw damaged(`it cannot be decrypted (${reasonOf(end)})`);
    return new Uint8Array(await readFile(open));
  });

/** What became of looking for damage. */
export interface Repair {
  /** Sound: nothing to repair. Repaired: the bytes are new. Beyond: qpdf can do nothing for it. Unknown: qpdf is missing. */
  readonly outcome: 'sound' | 'repaired' | 'beyond' | 'unknown';
  readonly bytes: Uint8Array;
}

/**
 * Looks at a file's structure, which is quick, and writes it anew where that is damaged. What it holds is not decoded, so
 * nothing can inflate here.
 *
 * @param meanwhile done while the program, on another processor, looks
 */
export const repair = <T>(bytes: Uint8Array, meanwhile: () => Promise<T>): Promise<[Repair, T]> =>
  inScratchFolder(async (path) => {
    const [file, mended] = [path('file.pdf'), path('mended.pdf')];
    await writeFile(file, bytes);
    const [end, done] = await Promise.all([runProgram(PROGRAM, ['--show-npages', file]), meanwhile()]);
    if (end === 'missing') return [{ outcome: 'unknown', bytes }, done];
    if (end.status === 0) return [{ outcome: 'sound', bytes }, done];
    const writing = await runProgram(PROGRAM, ['--stream-data=preserve', file, mended]);
    if (writing === 'missing' || (writing.status !== 0 && writing.status !== WARNED)) {
      return [{ outcome: 'beyond', bytes }, done];
    }
    return [{ outcome: 'repaired', bytes: new Uint8Array(await readFile(mended)) }, done];
  });

function withFile<T>(bytes: Uint8Array, work: (file: string) => Promise<T>): Promise<T> {
  return inScratchFolder(async (path) => {
    await writeFile(path('file.pdf'), bytes);
    return work(path('file.pdf'));
  });
}

function found(end: ProgramEnd | 'missing'): ProgramEnd {
  if (end === 'missing') throw programMissing('Opening a locked PDF', 'qpdf', 'take a copy without a password');
  return end;
}

const reasonOf = ({ complained }: ProgramEnd): string => complained.trim().split('\n').at(-1)?.slice(0, 120) ?? '';
