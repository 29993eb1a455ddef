import { existsSync, readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { inScratchFolder } from '@foglio/pdf';
import { manyPages } from '../../../bench/many-pages';
import { pdfWorkers } from './running-server';

const PAGES = 300;

const workers = pdfWorkers();
afterAll(() => workers.close());

/** What the kernel tells of a process: proc(5), /proc/pid/stat, whose second field may hold blanks. */
function kernelOn(pid: number): { session: number; nice: number } {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)!.split(' ');
  return { session: Number(fields[3]), nice: Number(fields[16]) };
}

const children = (): number[] =>
  readFileSync(`/proc/${process.pid}/task/${process.pid}/children`, 'utf8').trim().split(' ').map(Number);

const groupNice = (pid: number | 'self'): number =>
  Number(/nice (-?\d+)/.exec(readFileSync(`/proc/${pid}/autogroup`, 'utf8'))?.[1]);

test('whoever looks through pages gives way to what runs in this session and in others', async () => {
  const hasGroups = existsSync('/proc/self/autogroup');
  const before = hasGroups ? groupNice('self') : 0;
  const found: { session: boolean; nice: number; group: number }[] = [];
  await inScratchFolder(async (path) => {
    await writeFile(path('long.pdf'), await manyPages(PAGES));
    const pages = Array.from({ length: PAGES }, (_, index) => index + 1);
    await workers.readDetails(path('long.pdf'), pages, () => {
      for (const pid of children()) {
        const { session, nice } = kernelOn(pid);
        found.push({ session: session === pid, nice, group: hasGroups ? groupNice(pid) : 10 });
      }
    });
  });
  expect(found).toContainEqual({ session: true, nice: 19, group: 10 });
  // And nothing else does.
  expect(hasGroups ? groupNice('self') : 0).toBe(before);
});
