import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { panelAt } from './panel';
import { ended, launch, ROOT } from './programs';
import type { DeliveredSheet } from './world';

interface Switching {
  readonly sheetMs?: number;
  /** One that it had; otherwise a free one. */
  readonly port?: string;
  /** Of its folder, where it is not its manner's. */
  readonly name?: string;
}

/** Simulated printers beside those of a world, with manners of their own; each may be any of the demo's. */
export class StrangePrinters {
  private readonly folder = mkdtempSync(join(tmpdir(), 'foglio-manners-'));
  private readonly running: ChildProcess[] = [];

  async switchOn(
    manner: string | null,
    { sheetMs = 0, port = '0', name = manner ?? 'usual' }: Switching = {},
  ): Promise<{ readonly child: ChildProcess; readonly uri: string }> {
    const profile = ['--profile', join(ROOT, 'demo/printers/upper-office.json'), '--folder', join(this.folder, name)];
    const how = ['--sheet-ms', `${sheetMs}`, '--port', port, ...(manner ? ['--manner', manner] : [])];
    const [child, uri] = await launch('apps/printer', [...profile, ...how], {}, /ipp:\S+/);
    this.running.push(child);
    return { child, uri };
  }

  /** Switched off and on again at the same address, with another manner. */
  async becomes(manner: string, { child, uri }: { readonly child: ChildProcess; readonly uri: string }, name: string) {
    await ended(child, 'SIGKILL');
    return this.switchOn(manner, { name, port: /:(\d+)\//.exec(uri)![1]! });
  }

  async stop(): Promise<void> {
    await Promise.all(this.running.map((printer) => ended(printer, 'SIGTERM')));
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** All that came out of a printer, whichever of its jobs it was. */
export async function cameOut(uri: string): Promise<number> {
  const answer = await fetch(`${panelAt(uri)}/output`);
  return ((await answer.json()) as { delivered: DeliveredSheet[] }).delivered.length;
}
