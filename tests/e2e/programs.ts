import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/**
 * Starts a bundled program and waits for the line that tells its address.
 *
 * @param folder the application's
 * @throws Error where it ends before
 */
export function launch(
  folder: string,
  args: readonly string[],
  env: NodeJS.ProcessEnv,
  address: RegExp,
): Promise<[ChildProcess, string]> {
  const child = spawn(process.execPath, [join(ROOT, folder, 'dist/main.js'), ...args], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    let told = '';
    child.once('exit', (code) => reject(new Error(`${folder} ended with ${code}: ${told}`)));
    child.stdout.on('data', (part: Buffer) => {
      told += part.toString();
      const found = address.exec(told);
      if (found) resolve([child, found[0]]);
    });
  });
}

/** Ends a program, if it runs, and waits until it has ended. */
export function ended(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill(signal);
  });
}
