// Loaded into a server that is measured: at each SIGUSR2 it writes how long its thread was held since the one before.
import { renameSync, writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION_MS = 2;
const file = process.env.FOGLIO_EVENT_LOOP;
const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
delay.enable();
process.on('SIGUSR2', () => {
  const held = (nanoseconds) => Math.max(0, nanoseconds / 1e6 - RESOLUTION_MS);
  writeFileSync(`${file}.new`, JSON.stringify({ p99: held(delay.percentile(99)), max: held(delay.max) }));
  delay.reset();
  renameSync(`${file}.new`, file);
});
