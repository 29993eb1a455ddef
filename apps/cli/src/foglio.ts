import { main } from './main';

/** The program: what bin/foglio.mjs runs, bundled where it was built. */
process.exitCode = await main(process.argv);
