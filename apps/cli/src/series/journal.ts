import {
  closeSync,
  existsSync,
  fdatasyncSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { InputError } from '../input-error';

/** What became of a file, as far as it is known here. Nothing is known of one that was never begun. */
export interface Note {
  /** Its whole path, and what was in it: another content under the same path is another file. */
  readonly file: string;
  readonly sha256: string;
  /** "begun": the printer may have some of it; "sent": it has all; "over": and nothing more will come of it. */
  readonly state: 'begun' | 'sent' | 'over';
  /** Numbers that the printer gave its jobs, those it refused taken out again. */
  readonly jobs: readonly number[];
  readonly pages: number | null;
  readonly sheets: number;
  /** Sheets that have come out, by the printer's count. */
  readonly delivered: number;
  readonly outcome: string;
  readonly remark: string | null;
  /** When it was noted, as ISO 8601 has it. */
  readonly at: string;
}

const keyOf = ({ file, sha256 }: Pick<Note, 'file' | 'sha256'>): string => `${sha256} ${file}`;

/**
 * What a series has done, a line a step (JSON Lines), each on the disk before the next thing is done; so that run again
 * after a crash it does only what is left. One process at a time has it.
 */
export class Journal {
  private readonly notes = new Map<string, Note>();
  private readonly handle: number;

  /** @throws InputError where it is no journal, or another process has it */
  constructor(private readonly path: string) {
    this.lock();
    const text = existsSync(path) ? readFileSync(path, 'utf8') : '';
    const lines = text.split('\n');
    // A line that a crash cut off was not on the disk when the next thing was done: it never happened.
    const torn = lines.pop() ?? '';
    lines.forEach((line, at) => this.read(line, at + 1));
    this.handle = openSync(path, 'a');
    if (torn !== '') writeSync(this.handle, '\n');
  }

  of(file: Pick<Note, 'file' | 'sha256'>): Note | null {
    return this.notes.get(keyOf(file)) ?? null;
  }

  note(note: Omit<Note, 'at'>): Note {
    const noted = { ...note, at: new Date().toISOString() };
    writeSync(this.handle, `${JSON.stringify(noted)}\n`);
    fdatasyncSync(this.handle);
    this.notes.set(keyOf(note), noted);
    return noted;
  }

  close(): void {
    closeSync(this.handle);
    rmSync(`${this.path}.lock`, { force: true });
  }

  private read(line: string, number: number): void {
    if (line === '') return;
    let note: Note;
    try {
      note = JSON.parse(line) as Note;
    } catch {
      // Where a crash cut a line off, the next process went on in the next one.
      return;
    }
    if (typeof note.sha256 !== 'string' || typeof note.state !== 'string' || !Array.isArray(note.jobs)) {
      rmSync(`${this.path}.lock`, { force: true });
      throw new InputError(this.path, `line ${number} is not of a series; give another --journal`);
    }
    this.notes.set(keyOf(note), note);
  }

  /** A lock whose process is gone is taken over: it was killed. */
  private lock(): void {
    const path = `${this.path}.lock`;
    try {
      writeFileSync(path, String(process.pid), { flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw new InputError(path, (error as Error).message);
      const owner = Number(readFileSync(path, 'utf8'));
      if (isAlive(owner)) {
        throw new InputError(this.path, `process ${owner} is at this series; wait for it, or give another --journal`);
      }
      writeFileSync(path, String(process.pid));
    }
  }
}

function isAlive(pid: number): boolean {
  if (!Number.isInteger(pid) || pid <= 0 || pid === process.pid) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
