import { tmpdir } from 'node:os';
import { sweepScratch } from '@foglio/pdf';
import type { Pool } from 'pg';
import type { Database } from '../database/connection';
import { forLog } from '../database/query-error';
import { sweep, type SweepLimits } from './sweep';
import { sweepTasks } from './tasks';
import { log, rollLog } from '../log';

const HOUR_MS = 60 * 60_000;

/** Time between two sweeps. */
const EVERY_MS = HOUR_MS;

/** Removes what nobody needs any more, at the start and every hour. */
export class Retention {
  private timer: NodeJS.Timeout | null = null;
  private sweeping: Promise<void> = Promise.resolve();

  constructor(
    private readonly pool: Pool,
    private readonly db: Database,
    private readonly limits: SweepLimits,
  ) {}

  start(): void {
    const turn = (): void => {
      this.sweeping = this.sweep().catch((error: unknown) => log.error({ err: forLog(error) }, 'sweeping'));
    };
    turn();
    this.timer = setInterval(turn, EVERY_MS);
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.sweeping;
  }

  private async sweep(): Promise<void> {
    const folders = await sweepScratch(tmpdir(), Math.min(1, this.limits.graceHours) * HOUR_MS);
    const swept = await sweep(this.db, this.pool, this.limits);
    await sweepTasks(this.pool);
    rollLog();
    if (folders + swept.files + swept.documents + swept.sendings > 0) log.info({ folders, ...swept }, 'swept');
  }
}
