import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { copyFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { TicketError } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { expect, MANUAL, ROOT, test } from './world';

const FOGLIO = join(ROOT, 'apps/cli/bin/foglio.mjs');

test('the same from the command line: planned against the printer, sent as one job, delivered', async ({
  world,
}, testInfo) => {
  const ticket = {
    version: 1,
    title: 'Manual',
    documents: [{ file: 'manual.pdf', pages: '1-14' }],
    copies: 2,
    sides: 'two-sided',
    tray: 'tray-1',
    routes: [
      { pages: '1, 6', tray: 'tray-2', sides: 'one-sided' },
      { pages: '9', tray: 'tray-3', sides: 'one-sided' },
    ],
  };
  writeFileSync(testInfo.outputPath('ticket.json'), JSON.stringify(ticket));
  copyFileSync(MANUAL, testInfo.outputPath('manual.pdf'));
  // Without server or database: neither is told to it, and it runs in a folder of its own.
  const env = { PATH: process.env['PATH'] ?? '', HOME: testInfo.outputDir };
  const foglio = (...args: string[]): string =>
    execFileSync(process.execPath, [FOGLIO, ...args], { cwd: testInfo.outputDir, env, encoding: 'utf8' });

  const profile = JSON.parse(foglio('printer', world.printerUri)) as { trays: { id: string; loaded: number }[] };
  expect(profile.trays.map(({ id }) => id)).toEqual(['tray-1', 'tray-2', 'tray-3', 'tray-4', 'by-pass-tray']);
  expect(foglio('send', 'ticket.json', '--to', world.printerUri, '--yes')).toMatch(
    /^job 1 (pending|processing): 18 sheets\n$/,
  );
  await expect.poll(async () => (await world.delivered(1)).length).toBe(18);
  const trays = (await world.delivered(1)).map(({ tray }) => tray.slice(-1)).join('');
  expect(trays).toBe('211213111'.repeat(2));

  // A caution is not passed over without a person or --yes.
  writeFileSync(testInfo.outputPath('many.json'), JSON.stringify({ ...ticket, copies: 25 }));
  const held = spawnSync(process.execPath, [FOGLIO, 'send', 'many.json', '--to', world.printerUri], {
    cwd: testInfo.outputDir,
    env,
    encoding: 'utf8',
  });
  expect(held.status).toBe(2);
  expect(held.stderr).toContain('caution: This prints 225 sheets: 25 sets of 9 sheets.');
  // Some lines of this manual do run off the paper.
  expect(held.stderr).toContain('caution: Content of pages 7, 10, 11 and 13 is cut off at the right edge.');
  expect(await world.delivered(2)).toEqual([]);
});

test('a ticket is sent to the Desk as to any printer: what it says of pages, paper and sides lies there', async ({
  world,
}, testInfo) => {
  const ticket = {
    version: 1,
    title: 'Manual',
    documents: [{ file: 'manual.pdf', pages: '1-4' }],
    copies: 2,
    sides: 'two-sided',
    tray: 'tray-1',
    routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }],
  };
  writeFileSync(testInfo.outputPath('ticket.json'), JSON.stringify(ticket));
  copyFileSync(MANUAL, testInfo.outputPath('manual.pdf'));
  const told = execFileSync(
    process.execPath,
    [FOGLIO, 'send', 'ticket.json', '--to', world.queueUri('desk'), '--yes'],
    { cwd: testInfo.outputDir, encoding: 'utf8' },
  );
  expect(told).toMatch(/^job \d+ completed: 6 sheets\n$/);
  const [job] = await world.jobs();
  expect(job).toMatchObject({
    came: { name: 'Manual' },
    ticket: {
      copies: 2,
      sides: 'two-sided',
      tray: 'tray-1',
      routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }],
    },
  });
});

test('what changed at the printer while a person read is not printed', async ({ world }, testInfo) => {
  const ticket = { version: 1, documents: [{ file: 'manual.pdf', pages: '1-7' }], tray: 'tray-1', copies: 30 };
  writeFileSync(testInfo.outputPath('ticket.json'), JSON.stringify(ticket));
  copyFileSync(MANUAL, testInfo.outputPath('manual.pdf'));
  // A terminal of its own, at which a person answers.
  const command = `${process.execPath} ${FOGLIO} send ticket.json --to ${world.printerUri}`;
  const terminal = spawn('script', ['-qefc', command, '/dev/null'], { cwd: testInfo.outputDir });
  let said = '';
  terminal.stdout.on('data', (part: Buffer) => (said += part.toString()));
  const ended = new Promise<number | null>((resolve) => terminal.once('exit', resolve));
  await expect.poll(() => said).toContain('Send 210 sheets? [y/N]');
  await world.begunWith({ 'tray-1': { type: 'labels' } });
  terminal.stdin.write('y\r');
  expect([await ended, said]).toEqual([
    2,
    expect.stringContaining('since you were asked, this changed: the paper. Nothing was sent; send it again'),
  ]);
  expect(await world.delivered(1)).toEqual([]);
});

test('as built, with validators compiled beforehand, it says of what is wrong in a file what its sources say', ({}, testInfo) => {
  const documents = [{ file: 'manual.pdf' }];
  const tickets: unknown[] = [
    { version: 1 },
    { version: 2, documents },
    { version: 1, documents, copies: 0 },
    { version: 1, documents, sides: 'both' },
    { version: 1, documents, layout: { kind: 'heap' } },
    { version: 1, documents: [{ file: '', form: {} }] },
    { version: 1, documents, routes: [{ pages: '1' }], copy: 2 },
  ];
  const profiles: unknown[] = [{}, { name: 'Upper office', trays: 3 }];
  const saidOf = (read: (data: unknown) => unknown, data: unknown): string => {
    try {
      read(data);
    } catch (error) {
      if (error instanceof TicketError) return error.message;
      throw error;
    }
    throw new Error('Nothing is wrong with this.');
  };
  const foglio = (...args: string[]): string =>
    spawnSync(process.execPath, [FOGLIO, 'plan', ...args], { cwd: testInfo.outputDir, encoding: 'utf8' }).stderr;
  copyFileSync(MANUAL, testInfo.outputPath('manual.pdf'));
  writeFileSync(testInfo.outputPath('good.json'), JSON.stringify({ version: 1, documents }));
  for (const ticket of tickets) {
    writeFileSync(testInfo.outputPath('ticket.json'), JSON.stringify(ticket));
    expect(foglio('ticket.json')).toContain(saidOf(readTicket, ticket));
  }
  for (const profile of profiles) {
    writeFileSync(testInfo.outputPath('printer.json'), JSON.stringify(profile));
    expect(foglio('good.json', '--printer', 'printer.json')).toContain(saidOf(readPrinter, profile));
  }
});
