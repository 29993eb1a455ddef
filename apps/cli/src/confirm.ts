import { createInterface } from 'node:readline/promises';
import { complain } from './terminal';

/** Tells what is to be confirmed and asks for it; without a person at the terminal it is not. */
export async function confirmed(cautions: readonly { readonly message: string }[], sheets: number): Promise<boolean> {
  cautions.forEach(({ message }) => complain(`caution: ${message}`));
  if (!process.stdin.isTTY) {
    complain('Not sent; give --yes to send it all the same.');
    return false;
  }
  const prompt = createInterface({ input: process.stdin, output: process.stderr });
  const answer = await prompt.question(`Send ${sheets} sheets? [y/N] `);
  prompt.close();
  return /^y(es)?$/i.test(answer.trim());
}
