/** Bad input, in one line: the file, the place in it and the repair. */
export class InputError extends Error {
  override readonly name = 'InputError';

  constructor(file: string, problem: string) {
    super(`${file}: ${problem}`);
  }
}

/** What a failed file operation means to a person. */
export function sayFileTrouble(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code;
  if (code === 'ENOENT') return 'there is no such file; correct the path';
  if (code === 'EISDIR') return 'this is a folder; name a file';
  if (code === 'EACCES' || code === 'EPERM') return 'access is not allowed; change its permissions';
  if (code === 'ENOSPC') return 'the disk is full; make room';
  return (error as Error).message;
}
