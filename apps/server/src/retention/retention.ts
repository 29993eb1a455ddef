import { sweepScratch } from '@foglio/pdf';
import type { Pool } from 'pg';
import type { Database } from '../database/connection';
import { forLog } from '../database/query-error';
import { sweep, type SweepLimits } from './sweep';
import { sweepTasks } from './tasks';

/** Time between two sweeps, in milliseconds. */
const EVERY_MS = 60 * 60_000;

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
      this.sweeping = this.sweep().catch((error: unknown) => console.error('sweeping:', forLog(error)));
    };
    turn();
    this.timer = setInterval(turn, EVERY_MS);
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.sweeping;
  }

  private async sweep(): Promise<void> {
    const folders = await sweepScratch();
    if (folders > 0) console.log(`Removed ${folders} folders that killed programs have left`);
    const { documents, sendings } = await sweep(this.db, this.pool, this.limits);
    if (documents > 0) console.log(`Removed ${documents} documents that nothing referred to`);
    if (sendings > 0) console.log(`Removed the records of ${sendings} sendings; how much they printed is kept`);
    await sweepTasks(this.pool);
  }
}
