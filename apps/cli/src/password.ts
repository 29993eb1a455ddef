import { readFile } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { Writable } from 'node:stream';
import { ask } from './terminal';
import { InputError, sayFileTrouble } from './input-error';

/** Where the password of a file comes from; null where there is none to be had. */
export type AskPassword = (file: string) => Promise<string | null>;

/** From the first line of a file; from the terminal, unseen; or nowhere. */
export function passwordSource(passwordFile: string | undefined): AskPassword {
  if (passwordFile !== undefined) return () => firstLine(passwordFile);
  return process.stdin.isTTY ? askUnseen : () => Promise.resolve(null);
}

async function firstLine(path: string): Promise<string> {
  try {
    return (await readFile(path, 'utf8')).split(/\r?\n/)[0] ?? '';
  } catch (error) {
    throw new InputError(path, sayFileTrouble(error));
  }
}

function askUnseen(file: string): Promise<string> {
  ask(`Password of ${file}: `);
  const nowhere = new Writable({ write: (_part, _encoding, done) => done() });
  const terminal = createInterface({ input: process.stdin, output: nowhere, terminal: true });
  return new Promise((resolve) => {
    terminal.question('', (password) => {
      terminal.close();
      process.stderr.write('\n');
      resolve(password);
    });
  });
}
