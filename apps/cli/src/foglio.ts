import { main } from './main';

/** The program: bin/foglio.mjs runs it as it stands, and bundled it starts in a tenth of the time. */
process.exitCode = await main(process.argv);
