import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import * as documents from './index';

/** Draws every document of the demo into a folder, as NAME.pdf: for tests, which would draw each many times. */
const folder = process.argv[2];
if (!folder) throw new Error('usage: draw FOLDER');
mkdirSync(folder, { recursive: true });
for (const [name, draw] of Object.entries(documents)) writeFileSync(join(folder, `${name}.pdf`), await draw());
