import { Command, CommanderError, Option } from 'commander';
import type { ImposeOptions } from './commands/impose';
import type { PagesOptions } from './commands/pages';
import type { PlanOptions } from './commands/plan';
import type { SendOptions } from './commands/send';
import { BAD_INPUT, DONE } from './exit-status';
import type { OpeningOptions } from './opening';
import type { AccessOptions } from './printer-address';
import type { SeriesOptions } from './series/command';

/** Keeps the exit status of the command that is run. What a command needs is loaded when it is run, and no sooner. */
type Keep = (running: Promise<number>) => Promise<void>;

const passwordFile = (): Option =>
  new Option('--password-file <file>', 'a file whose first line is the password of locked PDFs');

/** What a printer may want beside its address. */
const access = (command: Command): Command =>
  command
    .option('--trust <fingerprint>', 'trust the certificate with this SHA-256 fingerprint')
    .option('--login <file>', 'a file with a name on its first line and a password on the second');

/** Runs `foglio`. @param argv as Node gives it @returns the exit status: 0 done, 1 a stop stands, 2 bad input or usage */
export async function main(argv: readonly string[]): Promise<number> {
  let status = DONE;
  const keep: Keep = async (running) => {
    status = await running;
  };
  const program = new Command('foglio')
    .description('Set up a print job, see every sheet, send it as one job.')
    .exitOverride();
  offerLooking(program, keep);
  offerPrinting(program, keep);
  try {
    await program.parseAsync([...argv]);
    return status;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? DONE : BAD_INPUT;
    (await import('./complain-about')).complainAbout(error);
    return BAD_INPUT;
  }
}

/** What only looks. */
function offerLooking(program: Command, keep: Keep): void {
  program
    .command('pages')
    .description('page facts of files: PDF, pictures, workbooks, CSV, plain text')
    .argument('<files...>')
    .option('--json', 'as JSON')
    .addOption(passwordFile())
    .action((files: string[], options: PagesOptions) =>
      keep(import('./commands/pages').then(({ pages }) => pages(files, options))),
    );
  program
    .command('plan')
    .description('the sheets a ticket comes to')
    .argument('<ticket>')
    .option('--printer <profile>', 'a printer profile; without: a printer with all the ticket asks for')
    .option('--json', "as JSON, in the plan's shape")
    .addOption(passwordFile())
    .action((ticket: string, options: PlanOptions) =>
      keep(import('./commands/plan').then(({ plan }) => plan(ticket, options))),
    );
  access(program.command('printer'))
    .description("read a printer's profile")
    .argument('<address>', 'ipp://HOST:PORT/ipp/print')
    .action((address: string, options: AccessOptions) =>
      keep(import('./commands/printer').then(({ printer }) => printer(address, options))),
    );
}

/** What writes, or moves paper. */
function offerPrinting(program: Command, keep: Keep): void {
  program
    .command('impose')
    .description('write an imposed PDF')
    .argument('<ticket>')
    .requiredOption('-o, --output <file>', 'the PDF to write')
    .option('--printer <profile>', 'a printer profile')
    .option('--set <which>', 'all: every set; without: one set')
    .addOption(passwordFile())
    .action((ticket: string, options: ImposeOptions) =>
      keep(import('./commands/impose').then(({ impose }) => impose(ticket, options))),
    );
  access(program.command('send'))
    .description('send a ticket to a printer as one job')
    .argument('<ticket>')
    .requiredOption('--to <address>', 'ipp://HOST:PORT/ipp/print')
    .option('--yes', 'send although cautions stand')
    .option('--sheets <numbers>', 'print these sheets of a set alone, "3-4, 7"')
    .option('--sets <numbers>', 'print these sets alone, "2-24"')
    .addOption(passwordFile())
    .action((ticket: string, options: SendOptions) =>
      keep(import('./commands/send').then(({ send }) => send(ticket, options))),
    );
  access(program.command('series'))
    .description(
      'a set-up over many files: planned, and with --to sent one after the other; run again, only what is left',
    )
    .argument('[files...]')
    .requiredOption('--ticket <setup>', 'a set-up, or a ticket whose documents are left out')
    .option('--to <address>', 'ipp://HOST:PORT/ipp/print')
    .option('--printer <profile>', 'a printer profile to plan against, without --to')
    .option('--watch <folder>', 'send what is put into this folder too')
    .option('--journal <file>', 'where it is noted what is done; beside the set-up unless given')
    .option('--report <file>', 'what became of each file: .csv or .pdf')
    .option('--skip', 'leave out files that do not fit')
    .option('--yes', 'send although cautions stand')
    .addOption(passwordFile())
    .action((files: string[], options: OpeningOptions & SeriesOptions) =>
      keep(import('./commands/series').then(({ series }) => series(files, options))),
    );
}
