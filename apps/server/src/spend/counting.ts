import { isDeepStrictEqual } from 'node:util';
import { momentOf, setupOf, type Spent, type Ticket } from '@foglio/core';
import { eq, inArray, notInArray, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { printers, sendings, setups } from '../database/schema';
import { spent, spentPapers } from '../database/spent-schema';
import { documentsOf } from '../jobs/job-store';
import { log } from '../log';
import type { Plans } from '../plans/plans';
import type { Presence } from '../sendings/presence';
import { isBroken, momentOfPrinting, OVER, type StoredSending } from '../sendings/sending-store';
import { sharedOut } from './shared-out';

/** Deliveries that are counted before others are looked for. */
const AT_ONCE = 20;

/** Of what ends at once, all is counted in one go. */
const AFTER_MS = 200;

/**
 * Adds what each delivery came to, once it is over, to what is kept of it for good. What is not counted yet is found by looking
 * at the tables, so it begins anywhere, and any number of servers may do it.
 */
export class Counting {
  private timer: NodeJS.Timeout | null = null;
  private counting: Promise<void> = Promise.resolve();
  private isStopped = false;
  /** Ids of what cannot be counted, so that it keeps nothing else from being so; the next start tries again. */
  private readonly refused = new Set<string>();

  constructor(
    private readonly db: Database,
    private readonly plans: Plans,
    private readonly presence: Presence,
  ) {}

  start(): void {
    this.presence.on('sending', this.wake).on('reopened', this.wake);
    this.wake();
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    this.presence.off('sending', this.wake).off('reopened', this.wake);
    if (this.timer) clearTimeout(this.timer);
    await this.counting;
  }

  private readonly wake = (): void => {
    if (this.timer) return;
    this.timer = setTimeout(() => {
      // Whatever is heard of from now on may come too late for this look.
      this.counting = this.counting.then(() => {
        this.timer = null;
        return this.countAll();
      });
    }, AFTER_MS);
  };

  private async count(sending: StoredSending): Promise<void> {
    try {
      await countDelivery(this.db, this.plans, sending);
    } catch (error) {
      if (isDatabaseAway(error)) throw error;
      this.refused.add(sending.id);
      log.error({ sending: sending.id, err: forLog(error) }, 'counting what was spent');
    }
  }

  private async countAll(): Promise<void> {
    try {
      let found: readonly StoredSending[];
      do {
        found = await uncounted(this.db, AT_ONCE, [...this.refused]);
        for (const sending of found) {
          if (this.isStopped) return;
          await this.count(sending);
        }
      } while (found.length > 0);
    } catch (error) {
      // Once it is back, that is heard of.
      if (!isDatabaseAway(error)) log.error({ err: forLog(error) }, 'counting what was spent');
    }
  }
}

/** What is over, brought sheets out, and is not counted, or was before a person said that all of it came out. */
async function uncounted(db: Database, most: number, but: readonly string[]): Promise<StoredSending[]> {
  const { rows } = await db.execute<{ id: string }>(sql`
    select ${sendings.id} as id from ${sendings} left join ${spent} on ${spent.id} = ${sendings.id}
    where ${sendings.sheetsDone} > 0 and (${sendings.endedAt} is not null or ${inArray(sendings.state, [...OVER])})
      and (${spent.id} is null or ${spent.sheets} <> ${sendings.sheetsDone}) and ${notInArray(sendings.id, [...but])}
    order by ${sendings.updatedAt} limit ${most}`);
  if (rows.length === 0) return [];
  return db
    .select()
    .from(sendings)
    .where(
      inArray(
        sendings.id,
        rows.map(({ id }) => id),
      ),
    );
}

/** Counts a delivery, or counts it anew. */
async function countDelivery(db: Database, plans: Plans, sending: StoredSending): Promise<void> {
  const { id, printerId, jobId, ticket, profile, endedAt, updatedAt, sheetsDone } = sending;
  const { papers, ...figures } = sharedOut(await figuresOf(db, plans, sending), sheetsDone);
  const [printer] = await db.select({ name: printers.name }).from(printers).where(eq(printers.id, printerId));
  const { saved, cheaper, ...sums } = figures;
  const values = {
    id,
    day: momentOf(endedAt ?? updatedAt).slice(0, 'YYYY-MM-DD'.length),
    printerId,
    printerName: printer?.name ?? profile.name,
    jobId,
    title: ticket.title,
    ...(await setupBy(db, ticket)),
    ...sums,
    savedSheets: saved.sheets,
    saved: saved.cost,
    ...(await againBy(db, sending)),
    cheaperWay: cheaper?.way ?? null,
    cheaperSaves: cheaper?.saves ?? 0,
    cheaperText: cheaper?.smallestTextPt ?? null,
  };
  await db.transaction(async (tx) => {
    const [still] = await tx.select({ id: sendings.id }).from(sendings).where(eq(sendings.id, id)).for('share');
    if (!still) return;
    await tx.insert(spent).values(values).onConflictDoUpdate({ target: spent.id, set: values });
    await tx.delete(spentPapers).where(eq(spentPapers.id, id));
    const { day } = values;
    const rows = papers.map(({ type, ...paper }) => ({ id, day, printerId, type: type ?? '', ...paper }));
    if (rows.length > 0) await tx.insert(spentPapers).values(rows);
  });
}

/** What all of it came to. What cannot be planned any more is told by the tally that was kept. */
async function figuresOf(db: Database, plans: Plans, sending: StoredSending): Promise<Spent> {
  const { ticket, profile: printer, portion, tally, sheets } = sending;
  try {
    const planning = { ticket, printer, moment: momentOfPrinting(sending), pass: null, portion };
    return await plans.ask({ kind: 'spent' }, planning, await documentsOf(db, ticket));
  } catch (error) {
    if (isDatabaseAway(error)) throw error;
    log.warn({ sending: sending.id, err: forLog(error) }, 'counting what was spent: by its tally');
    return {
      kind: ticket.sides === 'two-sided' ? 'two-sided' : 'one-sided',
      sheets,
      twoSidedSheets: 0,
      sides: tally?.sides ?? sending.sides ?? sheets,
      colorSides: 0,
      graySides: 0,
      paper: 0,
      printing: tally?.cost ?? 0,
      gray: 0,
      papers: [],
      saved: { sheets: 0, cost: 0 },
      cheaper: null,
    };
  }
}

/** The saved set-up that says all that a ticket says, but for how many copies. */
async function setupBy(db: Database, ticket: Ticket) {
  const bare = ({ copies: _, proof: __, ...rest }: Ticket) => rest;
  const own = bare(setupOf(ticket));
  const all = await db.select().from(setups).orderBy(setups.createdAt);
  const found = all.find((one) => isDeepStrictEqual(bare(setupOf(one.ticket)), own));
  return { setupId: found?.id ?? null, setupName: found?.name ?? null };
}

/** Why it was printed once more. */
async function againBy(db: Database, { againOf }: StoredSending) {
  if (!againOf) return { again: null, againSaid: null };
  const [earlier] = await db.select().from(sendings).where(eq(sendings.id, againOf));
  const wentWrong = earlier !== undefined && (isBroken(earlier) || earlier.state === 'canceled');
  return wentWrong
    ? { again: 'broken-off' as const, againSaid: earlier.message }
    : { again: 'wished' as const, againSaid: null };
}
