import { spawn } from 'node:child_process';
import { tooMuch } from './pdf-error';

/** What another program may take before it is ended. */
export interface ProgramLimits {
  readonly seconds: number;
  readonly memoryMb: number;
  /** Of any file it writes. */
  readonly outputMb: number;
}

const LIMITS: ProgramLimits = { seconds: 300, memoryMb: 3_000, outputMb: 2_000 };

export interface ProgramEnd {
  readonly status: number;
  /** What it wrote to its output, and to its error output. */
  readonly said: string;
  readonly complained: string;
}

/** How the shell and prlimit say that a program was not found. */
const NOT_FOUND = 127;

const MB = 1024 * 1024;

/**
 * Runs a program of Debian's under limits on time, memory and output, which the kernel keeps (prlimit of util-linux, which
 * every Debian has).
 *
 * @param input written to its input
 * @returns how it ended, or "missing" where it is not installed
 * @throws PdfError `too-much` where it took too long
 */
export function runProgram(
  name: string,
  options: readonly string[],
  input = '',
  { seconds, memoryMb, outputMb }: ProgramLimits = LIMITS,
): Promise<ProgramEnd | 'missing'> {
  const limits = [`--as=${memoryMb * MB}`, `--fsize=${outputMb * MB}`];
  return new Promise((resolve, reject) => {
    const ended = { timeout: seconds * 1000, killSignal: 'SIGKILL' } as const;
    const program = spawn('prlimit', [...limits, name, ...options], { ...ended, env: process.env });
    let said = '';
    let complained = '';
    program.stdout.on('data', (part: Buffer) => (said += String(part)));
    program.stderr.on('data', (part: Buffer) => (complained += String(part)));
    program.on('error', reject);
    program.on('close', (status, signal) => {
      if (status === NOT_FOUND) resolve('missing');
      else if (status === null) reject(tooMuch(signal === 'SIGKILL' ? 'time' : 'room on the disk'));
      else resolve({ status, said, complained });
    });
    // A program that ends before it has read its input is judged by how it ended.
    program.stdin.on('error', () => undefined);
    program.stdin.end(input);
  });
}
