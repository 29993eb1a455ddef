import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { profileForTicket } from '@foglio/core';
import { ROOT } from '../tests/e2e/world';
import { median, report } from './figures';
import { documentOf, ticketOf } from './jobs';

test('planning in the browser’s worker', async ({ page }) => {
  const web = join(ROOT, 'apps/web/dist/browser');
  // The built worker itself; of the two the smaller one plans.
  const workers = readdirSync(web).filter((name) => /^worker-.*\.js$/.test(name));
  const [file] = workers.sort((a, b) => readFileSync(join(web, a)).length - readFileSync(join(web, b)).length);
  const server = createServer((request, response) => {
    const path = request.url?.endsWith('.js') ? join(web, request.url) : null;
    response.setHeader('Content-Type', path ? 'text/javascript' : 'text/html');
    response.end(path ? readFileSync(path) : '<!doctype html><title>bench</title>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
  const facts = [documentOf(2_000)];
  const ticket = ticketOf(2_000, 20);
  const printer = profileForTicket(ticket, facts);
  const figures = await page.evaluate(
    async ({ file, facts, ticket, printer }) => {
      const worker = new Worker(`/${file}`, { type: 'module' });
      worker.postMessage({ kind: 'facts', documents: facts });
      const runs: { planning: number; roundTrip: number }[] = [];
      for (let number = 0; number < 40; number += 1) {
        const start = performance.now();
        worker.postMessage({ kind: 'question', number, ticket, printer, question: { kind: 'plan' } });
        const answer = await new Promise<{ milliseconds: number }>((resolve) => {
          worker.onmessage = ({ data }: MessageEvent<{ answer: { milliseconds: number } }>) => resolve(data.answer);
        });
        runs.push({ planning: answer.milliseconds, roundTrip: performance.now() - start });
      }
      return runs;
    },
    { file, facts, ticket, printer },
  );
  server.close();
  const planning = median(figures.map((run) => run.planning));
  report('plan of 2,000 pages, 20 routes, in the worker', planning, 'ms', 'under 30 ms');
  report('  with the way there and back', median(figures.map((run) => run.roundTrip)), 'ms');
  expect(planning).toBeLessThan(30);
});
