import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { main } from '../src/main';
import { labelledPdf } from './labelled-pdf';

/** A folder with a manual in it, in which tickets are planned, and what the command says. */
export interface AtCommandLine {
  /** The file of the ticket. */
  readonly ticket: string;
  readonly printed: string;
  readonly complained: string;
  /** Plans a ticket. @returns the exit status */
  readonly run: (ticket: object, printer?: object) => Promise<number>;
  /** The path of a file in the folder. */
  readonly at: (name: string) => string;
  /** Puts a file beside the ticket. */
  readonly write: (name: string, content: string | Uint8Array) => void;
  /** What was printed until now counts no more. */
  readonly forget: () => void;
}

/** For all tests of a file. */
export function atCommandLine(): AtCommandLine {
  let folder: string;
  let printed = '';
  let complained = '';
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'foglio-fields-'));
    process.env['XDG_CACHE_HOME'] = join(folder, 'cache');
    writeFileSync(join(folder, 'manual.pdf'), labelledPdf());
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  beforeEach(() => {
    printed = '';
    complained = '';
    jest.spyOn(process.stdout, 'write').mockImplementation((text) => ((printed += String(text)), true));
    jest.spyOn(process.stderr, 'write').mockImplementation((text) => ((complained += String(text)), true));
  });
  afterEach(() => jest.restoreAllMocks());
  return {
    get ticket() {
      return join(folder, 'ticket.json');
    },
    get printed() {
      return printed;
    },
    get complained() {
      return complained;
    },
    run: async (ticket, printer) => {
      writeFileSync(join(folder, 'ticket.json'), JSON.stringify(ticket));
      if (printer) writeFileSync(join(folder, 'printer.json'), JSON.stringify(printer));
      const profile = printer ? ['--printer', join(folder, 'printer.json')] : [];
      return main(['node', 'foglio', 'plan', join(folder, 'ticket.json'), '--json', ...profile]);
    },
    at: (name) => join(folder, name),
    write: (name, content) => writeFileSync(join(folder, name), content),
    forget: () => {
      printed = '';
      complained = '';
    },
  };
}
