import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { patience } from '../src/patience';
import { processorTimeOf } from '../src/process-use';

/** Time by the clock and of the processors, which a test lets pass. */
function clocks() {
  const passed = { clock: 0, worked: 500 };
  return { passed, counted: { clock: () => passed.clock, worked: () => passed.worked } };
}

test('work that a busy machine hardly lets run is waited for, and given up once it has had its time', () => {
  const { passed, counted } = clocks();
  const isOver = patience(1_000, 1, counted);
  passed.clock = 4_000;
  passed.worked += 900;
  expect(isOver()).toBe(false);
  passed.worked += 200;
  expect(isOver()).toBe(true);
});

test('two that work beside each other take no time of each other', () => {
  const { passed, counted } = clocks();
  const isOver = patience(1_000, 1, counted);
  passed.clock = 900;
  passed.worked += 1_800;
  expect(isOver()).toBe(false);
});

test('what does nothing is not waited for for ever', () => {
  const { passed, counted } = clocks();
  const isOver = patience(1_000, 1, counted);
  passed.clock = 5_900;
  expect(isOver()).toBe(false);
  passed.clock = 6_100;
  expect(isOver()).toBe(true);
});

test('processor time is what the kernel’s own counting says, with what a process started', async () => {
  // The second opinion: times(2) as the shell tells it, of itself and of those it started.
  const busy = 'for (const end = Date.now() + 300; Date.now() < end;);';
  const shell = spawn('bash', ['-c', `node -e '${busy}'; times; read`], { stdio: ['pipe', 'pipe', 'inherit'] });
  let said = '';
  while (said.split('\n').length < 3) said += String((await once(shell.stdout, 'data'))[0]);
  const told = [...said.matchAll(/(\d+)m([\d.]+)s/g)].reduce(
    (sum, [, minutes, seconds]) => sum + Number(minutes) * 60_000 + Number(seconds) * 1000,
    0,
  );
  const found = processorTimeOf(shell.pid!);
  shell.stdin.end('\n');
  await once(shell, 'exit');
  expect(found).toBeGreaterThan(100);
  // Each of four figures is cut to ticks.
  expect(Math.abs(found - told)).toBeLessThanOrEqual(50);
  expect(processorTimeOf(shell.pid!)).toBe(0);
  expect(execFileSync('getconf', ['CLK_TCK']).toString().trim()).toBe('100');
});
