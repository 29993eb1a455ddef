import { mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PdfError, readDetails, takeIn } from '../../src';
import { numberedPdf } from '../make-pdf';
import { lock, pageTexts, qpdfComplaints } from '../poppler';

const whole = numberedPdf(2);

async function troubleOf(bytes: Uint8Array, password?: string): Promise<string> {
  const error: unknown = await takeIn(bytes, password).then(
    () => new Error('it was taken'),
    (thrown: unknown) => thrown,
  );
  if (!(error instanceof PdfError)) throw error;
  return `${error.trouble}: ${error.message}`;
}

test('a file with a password asks for it, refuses a wrong one, and opens with either of its two', async () => {
  const locked = lock(whole, 'sesamé', 'owner');
  expect(await troubleOf(locked)).toMatch(/^locked: .*Give the password/);
  expect(await troubleOf(locked, 'guess')).toMatch(/^wrong-password: /);
  for (const password of ['sesamé', 'owner']) {
    const { bytes, facts } = await takeIn(locked, password);
    expect(facts.pages).toHaveLength(2);
    expect(pageTexts(bytes).map((text) => text.trim())).toEqual(['page1', 'page2']);
    expect(qpdfComplaints(bytes)).toBe('');
    // Nothing downstream needs the password any more, and it stands nowhere.
    expect(Buffer.from(bytes).includes('/Encrypt')).toBe(false);
    let read = 0;
    await readDetails(bytes, 'all', () => void (read += 1));
    expect(read).toBe(2);
  }
});

test('a file that may not be printed is refused, unless its owner’s password is given', async () => {
  const forbidden = lock(whole, '', 'owner', '--print=none');
  expect(await troubleOf(forbidden)).toMatch(/^printing-forbidden: .*does not allow/);
  expect(await troubleOf(forbidden, 'guess')).toMatch(/^wrong-password: /);
  expect((await takeIn(forbidden, 'owner')).facts.pages).toHaveLength(2);
  const both = lock(whole, 'user', 'owner', '--print=none');
  expect(await troubleOf(both, 'user')).toMatch(/^printing-forbidden: /);
  expect((await takeIn(both, 'owner')).facts.pages).toHaveLength(2);
});

test('a file locked against changes only is taken without a word', async () => {
  const { bytes, remarks } = await takeIn(lock(whole, '', 'owner', '--modify=none'));
  expect(remarks).toEqual([]);
  expect(Buffer.from(bytes).includes('/Encrypt')).toBe(false);
});

describe('where qpdf is not installed', () => {
  const { PATH } = process.env;
  const locked = lock(whole, 'secret', 'owner');
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'foglio-no-qpdf-'));
    symlinkSync('/usr/bin/prlimit', join(folder, 'prlimit'));
    process.env['PATH'] = folder;
  });
  afterEach(() => {
    process.env['PATH'] = PATH;
    rmSync(folder, { recursive: true });
  });

  test('what opens by itself is taken, and what does not says what to install', async () => {
    expect((await takeIn(whole)).facts.pages).toHaveLength(2);
    expect(await troubleOf(locked)).toMatch(/^locked: /);
    expect(await troubleOf(locked, 'secret')).toMatch(/^program-missing: .*needs the Debian package qpdf; install it/);
  });
});
