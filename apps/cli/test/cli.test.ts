import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPlan } from '@foglio/core/validate';
import { encodeMessage } from '@foglio/ipp';
import { answerOf, bytesOf, close, isFrom, listening } from '../../../packages/ipp/test/small-printer';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { mailFile } from '../../../packages/typeset/test/make-mail';
import { main } from '../src/main';

/** The first pages of a manual that Debian ships and this project did not write; the test set-up fetches it. */
const MANUAL = join(__dirname, '../../../.foglio/manual/maint-guide.en-20.pdf');

let folder: string;
let printed: string;
let complained: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-cli-'));
  process.env['XDG_CACHE_HOME'] = join(folder, 'cache');
  copyFileSync(MANUAL, join(folder, 'manual.pdf'));
  writeFileSync(join(folder, 'plain.pdf'), numberedPdf(20));
  printed = '';
  complained = '';
  jest.spyOn(process.stdout, 'write').mockImplementation((text) => ((printed += String(text)), true));
  jest.spyOn(process.stderr, 'write').mockImplementation((text) => ((complained += String(text)), true));
});

afterEach(() => {
  jest.restoreAllMocks();
  rmSync(folder, { recursive: true, force: true });
});

const foglio = (...args: string[]): Promise<number> => main(['node', 'foglio', ...args]);
const at = (name: string): string => join(folder, name);

function ticket(settings: object, name = 'ticket.json'): string {
  writeFileSync(
    at(name),
    JSON.stringify({ version: 1, documents: [{ file: 'plain.pdf', pages: '1-14' }], ...settings }),
  );
  return at(name);
}

const CONTRACT = {
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [
    { pages: '1, 6', tray: 'tray-2', sides: 'one-sided' },
    { pages: '9', tray: 'tray-3', sides: 'one-sided' },
  ],
};

test('a printer that asks who is asking is told so by a file', async () => {
  const printer = createServer((request, response) => {
    request.resume();
    if (isFrom('anna', 'Seven doors', request.headers.authorization)) return void response.end(bytesOf(answerOf()));
    response.writeHead(401, { 'WWW-Authenticate': 'Basic realm="printer"' }).end();
  });
  const address = await listening(printer);
  expect(await foglio('printer', address)).toBe(2);
  expect(complained).toContain('asks for a name and a password; say them with --login FILE');
  writeFileSync(at('login'), 'anna\nSeven doors\n');
  expect(await foglio('printer', address, '--login', at('login'))).toBe(0);
  expect(JSON.parse(printed)).toMatchObject({ name: 'Foyer' });
  writeFileSync(at('short'), 'anna');
  expect(await foglio('printer', address, '--login', at('short'))).toBe(2);
  expect(complained).toContain('write the name on its first line and the password on the second');
  close(printer);
});

test('what a file or a printer calls itself is no command to a terminal (ECMA-48)', async () => {
  writeFileSync(
    ticket({ title: 'x' }),
    JSON.stringify({ version: 1, documents: [{ file: 'a\u001b[2J\u009b31m.pdf' }] }),
  );
  expect(await foglio('plan', at('ticket.json'))).toBe(2);
  expect(complained).toMatch(/a\ufffd\[2J\ufffd31m\.pdf/);
  const printer = createServer((_request, response) => {
    const refusal = encodeMessage({
      version: [2, 0],
      code: 0x0400,
      requestId: 1,
      groups: [
        {
          tag: 'operation',
          attributes: { 'status-message': [{ tag: 'text', value: '\u001b]0;gone\u0007\u009b2J' }] },
        },
      ],
    });
    response.writeHead(200, { 'Content-Type': 'application/ipp' }).end(refusal);
  });
  await new Promise<void>((resolve) => printer.listen(0, '127.0.0.1', resolve));
  complained = '';
  expect(await foglio('printer', `ipp://127.0.0.1:${(printer.address() as AddressInfo).port}/ipp/print`)).toBe(2);
  printer.close();
  expect(complained).toContain(']0;gone');
  expect(complained).not.toMatch(/[\u0000-\u0009\u000b-\u001f\u007f-\u009f]/);
});

describe('pages', () => {
  test('as JSON: every page of a manual that the project did not write', async () => {
    expect(await foglio('pages', at('manual.pdf'), '--json')).toBe(0);
    const [file] = JSON.parse(printed) as [{ pages: { page: number; size: string; orientation: string }[] }];
    const told = execFileSync('pdfinfo', [at('manual.pdf')], { encoding: 'utf8' });
    expect(file.pages).toHaveLength(Number(/^Pages: +(\d+)/m.exec(told)?.[1]));
    expect(file.pages[0]).toMatchObject({ page: 1, size: 'iso_a4_210x297mm', orientation: 'portrait' });
  });

  test('as a table', async () => {
    expect(await foglio('pages', at('manual.pdf'))).toBe(0);
    expect(printed).toContain('20 pages');
    expect(printed).toMatch(/^6 +210 × 297 mm +A4 +portrait +vi +colour +9 pt$/m);
    expect(printed).toMatch(/^7 +210 × 297 mm +A4 +portrait +1 +1 +colour +8 pt$/m);
  });
});

describe('what is taken besides an open PDF', () => {
  const lock = (...options: string[]): void => {
    execFileSync('qpdf', ['--encrypt', ...options, '256', '--print=none', '--', at('plain.pdf'), at('locked.pdf')]);
  };

  test('a locked file asks for its password, and takes it from a file', async () => {
    lock('', 'owner');
    expect(await foglio('pages', at('locked.pdf'))).toBe(2);
    expect(complained).toContain(`${at('locked.pdf')}: Whoever made this PDF does not allow it to be printed.`);
    writeFileSync(at('password'), 'owner\n');
    expect(await foglio('pages', at('locked.pdf'), '--password-file', at('password'))).toBe(0);
    expect(printed).toContain('20 pages');
    writeFileSync(at('password'), 'guess\n');
    expect(await foglio('pages', at('locked.pdf'), '--password-file', at('password'))).toBe(2);
    expect(complained).toContain('This is not the password of this PDF.');
    expect(await foglio('pages', at('locked.pdf'), '--password-file', at('none'))).toBe(2);
    expect(complained).toContain(`${at('none')}: there is no such file; correct the path`);
  });

  test('a plain text and a picture become pages, what should be known of them is said', async () => {
    writeFileSync(at('letter.txt'), 'Dear colleague,\fpage two\n');
    // A black dot, as small as a picture can be.
    const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR42mNgAAAAAgAB5vEzRgAAAABJRU5ErkJggg==';
    writeFileSync(at('dot.png'), Buffer.from(dot, 'base64'));
    const job = ticket({ documents: [{ file: 'letter.txt' }, { file: 'dot.png' }] });
    expect(await foglio('impose', job, '-o', at('out.pdf'))).toBe(0);
    expect(complained).toBe(`${at('dot.png')}: It does not say its resolution; 96 pixels an inch are taken.\n`);
    const told = execFileSync('pdfinfo', [at('out.pdf')], { encoding: 'utf8' });
    expect(told).toMatch(/^Pages: +3$/m);
  });

  test('what it is not made for is refused by what it is, not by its name', async () => {
    writeFileSync(at('letter.pdf'), '{\\rtf1 of another program}');
    expect(await foglio('pages', at('letter.pdf'))).toBe(2);
    expect(complained).toBe(
      `${at('letter.pdf')}: Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text; save the document as PDF and take that.\n`,
    );
  });

  test('what a file says of itself, and how its pages are turned', async () => {
    expect(await foglio('pages', at('manual.pdf'), '--json')).toBe(0);
    const [file] = JSON.parse(printed) as [{ about: object; pages: { rotation: number }[] }];
    const told = execFileSync('pdfinfo', ['-isodates', at('manual.pdf')], { encoding: 'utf8' });
    const created = /^CreationDate: +(.*)$/m.exec(told)?.[1];
    expect(file.about).toMatchObject({ created: new Date(created ?? '').toISOString() });
    expect(file.pages[0]?.rotation).toBe(0);
  });
});

describe('plan', () => {
  test('as JSON, in the shape of the model', async () => {
    expect(await foglio('plan', ticket(CONTRACT), '--json')).toBe(0);
    const plan = readPlan(JSON.parse(printed));
    expect(plan.tally).toMatchObject({
      sheetsPerSet: 9,
      sheets: 18,
      byTray: { 'tray-1': 12, 'tray-2': 4, 'tray-3': 2 },
    });
    expect(plan.checks).toEqual([]);
  });

  test('as a sheet list', async () => {
    expect(await foglio('plan', ticket(CONTRACT))).toBe(0);
    expect(printed).toMatch(/^9 +tray-1 +A4 +long edge +page 14 +blank$/m);
    expect(printed).toContain('9 sheets a set, 2 sets, 18 sheets in all');
  });

  test('what is done to the sets is told, and where parts begin', async () => {
    const documents = [1, 2].map(() => ({ file: 'plain.pdf', pages: '1-3' }));
    const finishings = ['staple-top-left'];
    expect(await foglio('plan', ticket({ documents, finishings }))).toBe(0);
    expect(printed).toContain('each set with a staple at the top left corner\n');
    expect(await foglio('plan', ticket({ documents, finishings, finishEach: 'document' }))).toBe(0);
    expect(printed).toContain('each part with a staple at the top left corner; parts begin at sheets 1 and 4\n');
  });

  test('against a profile a stop shows in the exit status, and the plan is printed whole all the same', async () => {
    writeFileSync(
      at('small.json'),
      JSON.stringify({ name: 'Small', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }),
    );
    expect(await foglio('plan', ticket(CONTRACT), '--printer', at('small.json'))).toBe(1);
    expect(printed).toContain('stop: The tray chosen for pages 1 and 6 (A4) is not in Small. It has tray-1.');
    expect(printed).toMatch(/^9 +tray-1/m);
  });
});

describe('impose', () => {
  test('one set: 18 pages, each at its paper’s size, one-sided sheets followed by a blank page; read by poppler', async () => {
    const manual = { ...CONTRACT, documents: [{ file: 'manual.pdf', pages: '1-14' }] };
    expect(await foglio('impose', ticket(manual), '-o', at('out.pdf'))).toBe(0);
    const info = execFileSync('pdfinfo', ['-f', '1', '-l', '99', at('out.pdf')], { encoding: 'utf8' });
    expect(info).toMatch(/^Pages: +18$/m);
    expect(info.match(/^Page +\d+ size: +595\.276 x 841\.89 pts \(A4\)$/gm)).toHaveLength(18);
    const textOf = (file: string): string[] =>
      execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
        .split('\f')
        .map((page) => page.trim());
    const source = textOf(at('manual.pdf'));
    const page = (number: number): string => source[number - 1] ?? '';
    const order = [page(1), '', page(2), page(3), page(4), page(5), page(6), '', page(7), page(8), page(9), ''];
    expect(textOf(at('out.pdf')).slice(0, 18)).toEqual([
      ...order,
      page(10),
      page(11),
      page(12),
      page(13),
      page(14),
      '',
    ]);
    expect(readdirSync(folder).filter((name) => name.includes('.part'))).toEqual([]);
  });

  test('every set with --set all; another word is refused', async () => {
    expect(await foglio('impose', ticket(CONTRACT), '-o', at('all.pdf'), '--set', 'all')).toBe(0);
    expect(printed).toMatch(/all\.pdf: 18 sheets, every set, \d+ bytes\n$/);
    expect(execFileSync('pdfinfo', [at('all.pdf')], { encoding: 'utf8' })).toMatch(/^Pages: +36$/m);
    expect(await foglio('impose', ticket(CONTRACT), '-o', at('some.pdf'), '--set', 'some')).toBe(2);
    expect(complained).toBe('--set: "some" is not known; write "all" or leave it out\n');
    expect(existsSync(at('some.pdf'))).toBe(false);
  });

  test('a job in grey is written without colour: by Ghostscript’s count of inks', async () => {
    const settings = { documents: [{ file: 'manual.pdf', pages: '4-5' }], color: 'monochrome' };
    expect(await foglio('impose', ticket(settings), '-o', at('grey.pdf'))).toBe(0);
    const inks = execFileSync('gs', ['-q', '-o', '-', '-sDEVICE=inkcov', at('grey.pdf')], { encoding: 'utf8' });
    expect(inks.trim().split('\n')).toHaveLength(2);
    for (const line of inks.trim().split('\n')) expect(line).toMatch(/^ *0\.0+ +0\.0+ +0\.0+ +0\.\d*[1-9]\d* CMYK/);
  });

  test('a stop writes nothing', async () => {
    writeFileSync(
      at('small.json'),
      JSON.stringify({ name: 'Small', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }),
    );
    expect(await foglio('impose', ticket(CONTRACT), '-o', at('out.pdf'), '--printer', at('small.json'))).toBe(1);
    expect(existsSync(at('out.pdf'))).toBe(false);
    expect(complained).toContain('The tray chosen for pages 1 and 6 (A4) is not in Small');
  });

  test('what is there already stays whole where writing fails', async () => {
    expect(await foglio('impose', ticket(CONTRACT), '-o', at('no-such-folder/out.pdf'))).toBe(2);
    expect(complained).toBe(`${at('no-such-folder/out.pdf')}: there is no such file; correct the path\n`);
  });
});

describe('bad input: one line with the file, the place and the repair; exit status 2', () => {
  test('a ticket that is no JSON', async () => {
    writeFileSync(at('ticket.json'), '{ "version": 1,');
    expect(await foglio('plan', at('ticket.json'))).toBe(2);
    expect(complained).toMatch(/ticket\.json: not JSON: .*position 15.*; correct it there\n$/);
  });

  test('a document that is missing, a folder, or no PDF', async () => {
    expect(await foglio('plan', ticket({ documents: [{ file: 'gone.pdf' }] }))).toBe(2);
    expect(await foglio('plan', ticket({ documents: [{ file: '.' }] }))).toBe(2);
    writeFileSync(at('letter.doc'), '{\\rtf1 of another program}');
    expect(await foglio('plan', ticket({ documents: [{ file: 'letter.doc' }] }))).toBe(2);
    expect(complained.trim().split('\n')).toEqual([
      `${at('gone.pdf')}: there is no such file; correct the path`,
      `${folder}: this is a folder; name a file`,
      `${at('letter.doc')}: Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text; save the document as PDF and take that.`,
    ]);
  });

  test('what is attached to a mail and named nowhere, with how to name it', async () => {
    const parts = ['plan.pdf', 'notes.pdf'].map((name) => ({ type: 'application/pdf', name, bytes: numberedPdf(2) }));
    writeFileSync(at('plan.eml'), mailFile({ plain: 'see below' }, parts));
    const named = { file: 'plan.eml', form: { attachment: 'notes.pdf' } };
    expect(await foglio('plan', ticket({ documents: [{ file: 'plan.eml' }, named] }))).toBe(0);
    expect(complained).toBe(
      'plan.eml: attached and not in this job: plan.pdf; name each as a document, like {"file":"plan.eml","form":{"attachment":"plan.pdf"}}\n',
    );
    expect(printed).toContain('3 sheets');
  });

  test('wrong usage; a printer that is not there; an address that is none', async () => {
    expect(await foglio('fold')).toBe(2);
    expect(await foglio('impose', ticket({}))).toBe(2);
    expect(await foglio('printer', 'ipp://127.0.0.1:9/ipp/print')).toBe(2);
    expect(await foglio('send', ticket({}), '--to', 'http://127.0.0.1/')).toBe(2);
    expect(complained).toContain('127.0.0.1:9 cannot be reached');
    expect(complained).toContain(
      '"http://127.0.0.1/" is not a printer\'s address; write one like ipp://host:631/ipp/print',
    );
  });

  test('help is no error', async () => {
    expect(await foglio('--help')).toBe(0);
    expect(printed).toContain('impose');
  });
});

test('the ticket attached to an imposed PDF is the ticket', async () => {
  await foglio('impose', ticket(CONTRACT), '-o', at('out.pdf'));
  execFileSync('pdfdetach', ['-save', '1', '-o', at('attached.json'), at('out.pdf')]);
  expect(JSON.parse(readFileSync(at('attached.json'), 'utf8'))).toMatchObject(CONTRACT);
});
