import { fork, type ChildProcess } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import { memoryOfTree, type PdfTrouble } from '@foglio/pdf';

/** What the browser's process tells: where it is reached, or why there is none. */
export type BrowserReport = { readonly endpoint: string } | { readonly trouble: PdfTrouble; readonly message: string };

/** More than any document of an office takes to lay out, in megabytes: of all its processes together. */
const MOST_MB = 1_500;

/** Time between two looks at what it takes, in milliseconds. */
const WATCH_MS = 250;

const MB = 1024 * 1024;

/** Keeps one browser for all documents; one that ended is started again when the next document needs it. */
export class BrowserKeeper {
  private readonly program: string;
  private running: { readonly child: ChildProcess; readonly told: Promise<BrowserReport> } | null = null;
  private closed = false;

  /** @param program of its process: another file in the built server than in its tests */
  constructor(program: string | URL) {
    this.program = program instanceof URL ? fileURLToPath(program) : program;
  }

  /**
   * Where it is reached, once it runs.
   *
   * @param failed where it was not reached any more: another one is started in its place
   */
  async reach(failed: string | null): Promise<BrowserReport> {
    const told = await this.running?.told.catch(() => null);
    if (this.running && told && 'endpoint' in told && told.endpoint === failed) this.end(this.running.child);
    this.running ??= this.start();
    return this.running.told;
  }

  close(): void {
    this.closed = true;
    this.running?.child.kill('SIGTERM');
  }

  private start(): NonNullable<BrowserKeeper['running']> {
    if (this.closed) throw new Error('the server is being stopped');
    const child = fork(this.program, []);
    if (child.pid !== undefined) setPriority(child.pid, constants.priority.PRIORITY_BELOW_NORMAL);
    const told = new Promise<BrowserReport>((resolve, reject) => {
      child.once('message', (report: BrowserReport) => {
        // Where there is none now, there may be one the next time.
        if ('trouble' in report) this.forget(child);
        resolve(report);
      });
      child.once('error', reject);
      child.once('exit', (code, signal) => reject(new Error(`the browser ended with ${code ?? signal}`)));
    });
    // Heard by whoever asks for it.
    told.catch(() => undefined);
    const watch = setInterval(() => {
      if (child.pid !== undefined && memoryOfTree(child.pid) > MOST_MB * MB) child.kill('SIGTERM');
    }, WATCH_MS);
    watch.unref();
    child.once('exit', () => {
      clearInterval(watch);
      this.forget(child);
    });
    child.unref();
    child.channel?.unref();
    return { child, told };
  }

  private end(child: ChildProcess): void {
    this.forget(child);
    child.kill('SIGTERM');
  }

  private forget(child: ChildProcess): void {
    if (this.running?.child === child) this.running = null;
  }
}
