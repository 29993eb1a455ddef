import { readFileSync } from 'node:fs';
import { expect, test } from '../tests/e2e/world';
import { JobPrinter } from '../tests/e2e/job-printer';
import { report } from './figures';

const MB = 1024 * 1024;

/** A sound PDF of that many bytes: one page, and behind it a file that is attached to nothing. */
function largePdf(bytes: number): Buffer {
  const head = '%PDF-1.7\n';
  const objects = [
    '1 0 obj\n<< /Type /Catalog /Pages 2 0 R >>\nendobj\n',
    '2 0 obj\n<< /Type /Pages /Kids [3 0 R] /Count 1 >>\nendobj\n',
    '3 0 obj\n<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Filling 4 0 R >>\nendobj\n',
  ];
  const offsets: number[] = [];
  let at = head.length;
  for (const one of objects) {
    offsets.push(at);
    at += one.length;
  }
  offsets.push(at);
  const open = `4 0 obj\n<< /Length ${bytes} >>\nstream\n`;
  const close = '\nendstream\nendobj\n';
  // What cannot be packed any smaller, so that nobody gains by trying.
  const filling = Buffer.alloc(bytes);
  for (let place = 0, value = 1; place < bytes; place += 4) {
    value = (Math.imul(value, 1664525) + 1013904223) >>> 0;
    filling.writeUInt32LE(value, place);
  }
  const start = at + open.length + bytes + close.length;
  const rows = offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('');
  const tail = `xref\n0 5\n0000000000 65535 f \n${rows}trailer\n<< /Size 5 /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.concat([Buffer.from(head + objects.join('') + open), filling, Buffer.from(close + tail)]);
}

/** The most memory a process ever held, in megabytes (proc(5), status, VmHWM). */
const mostHeld = (pid: number): number =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

test('100 MB printed to the Desk: what the server holds', async ({ world }) => {
  const pdf = largePdf(100 * MB);
  const start = performance.now();
  await new JobPrinter(world.queueUri('desk')).print({ name: 'Large', user: 'anna' }, pdf);
  report('100 MB printed to the Desk', (performance.now() - start) / 1000, 's');
  const held = mostHeld(world.serverPid);
  report('  most memory of the server', held, 'MB', 'under 200 MB');
  expect(held).toBeLessThan(200);
});
