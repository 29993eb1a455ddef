import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import type { World } from '../tests/e2e/world';

/** What became of an upload. */
interface Upload {
  readonly status: number;
  /** Where it was taken. */
  readonly id?: string;
  readonly pages?: object[];
  /** From the request to the whole answer. */
  readonly milliseconds: number;
}

/**
 * Uploads a file from another process: sending is work too, and would hold up the very requests that are timed here. It has
 * asked for something before, as every page has that uploads: its first request takes a tenth of a second to make itself.
 */
export async function upload(world: World, file: string): Promise<Upload> {
  const script = `
    const [file, url] = process.argv.slice(1);
    const body = require('node:fs').readFileSync(file);
    (async () => {
      await (await fetch(new URL('/api/printers', url))).json();
      const start = performance.now();
      const answer = await fetch(url, { method: 'POST', body });
      const said = await answer.json();
      console.log(JSON.stringify({ ...said, status: answer.status, milliseconds: performance.now() - start }));
    })();`;
  const url = `${world.base}/api/files?name=x.pdf`;
  const { stdout } = await promisify(execFile)(process.execPath, ['-e', script, file, url], { maxBuffer: 1 << 28 });
  return JSON.parse(stdout) as Upload;
}
