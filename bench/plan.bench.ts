import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { plan, profileForTicket, selectPages, type DocumentFacts, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { ROOT } from '../tests/e2e/world';
import { median, report, timed } from './figures';

const documentOf = (count: number): DocumentFacts => ({
  name: 'manual.pdf',
  pages: Array.from({ length: count }, () => ({ width: 595.276, height: 841.89 })),
});

function ticketOf(pages: number, routes: number): Ticket {
  const stretch = Math.floor(pages / routes);
  return readTicket({
    version: 1,
    documents: [{ file: 'manual.pdf' }],
    sides: 'two-sided',
    routes: Array.from({ length: routes }, (_, index) => ({
      pages: `${index * stretch + 1}-${index * stretch + 7}`,
      tray: `tray-${(index % 4) + 1}`,
    })),
  });
}

test('planning in Node', () => {
  const time = (pages: number, routes: number): number => {
    const facts = [documentOf(pages)];
    const ticket = ticketOf(pages, routes);
    const printer = profileForTicket(ticket, facts);
    return median(timed(() => void plan(ticket, facts, printer)));
  };
  const small = time(2_000, 20);
  const large = time(10_000, 200);
  const huge = time(100_000, 200);
  const bare = median(
    timed(
      () =>
        void Array.from({ length: 10_000 }, (_, page) => ({
          document: 1,
          page,
          x: 0,
          y: 0,
          width: 1,
          height: 1,
          scale: 1,
          turn: 0,
          clip: null,
        })),
    ),
  );
  report('plan of 2,000 pages, 20 routes', small, 'ms');
  report('plan of 10,000 pages, 200 routes', large, 'ms');
  report('  over a bare pass that allocates as many cells', large / bare, 'times');
  report('100,000 pages over 10,000', huge / large, 'times', 'about 10: linear');
  const longest = '1-2,'.repeat(2499) + '1';
  report(
    'reading a selection of 10,000 characters',
    median(timed(() => void selectPages(longest, { facts: documentOf(10), rotate: 0, forgiving: false }))),
    'ms',
  );
});

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
        worker.postMessage({ kind: 'plan', number, ticket, printer });
        const answer = await new Promise<{ milliseconds: number }>((resolve) => {
          worker.onmessage = ({ data }: MessageEvent<{ milliseconds: number }>) => resolve(data);
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
