import { isDeepStrictEqual } from 'node:util';
import type { SaidOfPaper } from '@foglio/api';
import { readSizeName, type Printer, type Tray } from '@foglio/core';
import { askStatus, canonicalUri, IppError, type PrinterStatus } from '@foglio/ipp';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { sendings, jobs, printers, series, type SaidPaper } from '../database/schema';
import { Problem } from '../http/problem';
import { addressOf, withAccess, type SaidAccess } from './access';

export type StoredPrinter = typeof printers.$inferSelect;

/** A printer the server is told of when it starts. */
export interface KnownPrinter {
  readonly id: string;
  readonly uri: string;
  readonly panel: string | null;
  /** What it is, with prices; used until the printer itself has been asked. */
  readonly profile: Printer;
}

/**
 * Enters the printers of the configuration; one already known keeps its id, its jobs and what a person said of its paper,
 * and gets its new address.
 */
export async function enterPrinters(db: Database, known: readonly KnownPrinter[]): Promise<void> {
  for (const [place, { id, uri, panel, profile }] of known.entries()) {
    const values = { name: profile.name, uri, panel, place };
    await db
      .insert(printers)
      .values({ id, profile, ...values })
      .onConflictDoUpdate({ target: printers.id, set: values });
  }
}

export const listPrinters = (db: Database): Promise<StoredPrinter[]> =>
  db.select().from(printers).orderBy(asc(printers.place), asc(printers.name));

/** @throws Problem `not-found` */
export async function findPrinter(db: Database, id: string): Promise<StoredPrinter> {
  const [printer] = await db.select().from(printers).where(eq(printers.id, id));
  return existing(printer, id);
}

/** @throws Problem `not-found` */
function existing(printer: StoredPrinter | undefined, id: string): StoredPrinter {
  if (!printer) throw new Problem('not-found', `There is no printer "${id}".`);
  return printer;
}

/**
 * Changes a printer from what is stored of it now, one change at a time: of two things said at once neither undoes the
 * other.
 *
 * @throws Problem `not-found`
 */
function changePrinter(
  db: Database,
  id: string,
  change: (now: StoredPrinter) => Partial<StoredPrinter>,
): Promise<StoredPrinter> {
  return db.transaction(async (tx) => {
    // Without `key`, so that sendings, which refer to the printer, can still be entered.
    const [now] = await tx.select().from(printers).where(eq(printers.id, id)).for('no key update');
    const set = change(existing(now, id));
    const [changed] = await tx.update(printers).set(set).where(eq(printers.id, id)).returning();
    return existing(changed, id);
  });
}

/** How a printer stands, and what it reports where a person said otherwise. */
export interface PrinterAsked extends PrinterStatus {
  readonly reportedSizes: Readonly<Record<string, string>>;
}

/** While it says the same of itself, it is entered once in so long that it was seen, in milliseconds. */
const SEEN_ANEW_MS = 60_000;

/**
 * The printer's own account of itself as of now, with the prices known here; kept, so that a job can still be set up
 * while the printer is off.
 *
 * @throws Problem `printer-away`
 */
export async function askNow(db: Database, printer: StoredPrinter): Promise<PrinterAsked> {
  try {
    return await askItself(db, printer);
  } catch (error) {
    if (error instanceof IppError) throw new Problem('printer-away', `${printer.name}: ${error.message}`);
    throw error;
  }
}

/** The same. @throws IppError */
export async function askItself(db: Database, printer: StoredPrinter): Promise<PrinterAsked> {
  const told = await askStatus(addressOf(printer));
  const papers = heard(printer.papers, told.profile);
  const same = withKnown(told.profile, { ...printer, papers });
  const isKnown =
    papers === printer.papers &&
    isDeepStrictEqual(same, printer.profile) &&
    Date.now() - printer.seenAt.getTime() < SEEN_ANEW_MS;
  if (isKnown) return { ...told, profile: same, reportedSizes: reportedSizes(printer) };
  const changed = await changePrinter(db, printer.id, (now) => {
    const known = { ...now, papers: heard(now.papers, told.profile) };
    return { profile: withKnown(told.profile, known), papers: known.papers, seenAt: new Date() };
  });
  return { ...told, profile: changed.profile, reportedSizes: reportedSizes(changed) };
}

/** Any number: what printers that are added at once take turns on. */
const ADDING_LOCK = 0x70726e;

/** What a printer may be called (RFC 8011, 5.4.4: name(127)), and what of it an address here is made of. */
const LONGEST_NAME = 127;
const LONGEST_ID = 40;

/**
 * Takes up a printer by its address, if it answers there. Whatever else is there, the same is said: nobody learns by it
 * which doors of which machines are open.
 *
 * @throws Problem `body-invalid` where it is no address; `printer-away` where no printer answers at it; `printer-known`;
 * `login-wanted` and `certificate-unknown` where it wants more than its address
 */
export async function addPrinter(db: Database, address: string, said: SaidAccess = {}): Promise<StoredPrinter> {
  const uri = readUri(address);
  refuseKnown(await listPrinters(db), uri);
  const access = withAccess(null, said);
  const { profile } = await askNew({ uri, access });
  const name = profile.name.slice(0, LONGEST_NAME).toWellFormed();
  return db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${ADDING_LOCK})`);
    const known = await tx.select().from(printers);
    refuseKnown(known, uri);
    const values = { id: freeId(name, known), name, uri, access, panel: null, place: known.length };
    const [added] = await tx
      .insert(printers)
      .values({ ...values, profile: { ...profile, name } })
      .returning();
    return added as StoredPrinter;
  });
}

/** @throws Problem `body-invalid` */
function readUri(address: string): string {
  try {
    return canonicalUri(address);
  } catch (error) {
    if (error instanceof IppError) throw new Problem('body-invalid', `${error.message}.`);
    throw error;
  }
}

/** @throws Problem `printer-known` */
function refuseKnown(known: readonly StoredPrinter[], uri: string): void {
  const same = known.find((printer) => isAt(printer, uri));
  if (same) throw new Problem('printer-known', `${same.name} is at this address.`);
}

/** Those of the configuration, and of before, are written as they were, and need be no addresses any more. */
export function isAt(printer: StoredPrinter, uri: string): boolean {
  try {
    return canonicalUri(printer.uri) === canonicalUri(uri);
  } catch (error) {
    if (error instanceof IppError) return false;
    throw error;
  }
}

/** @throws Problem like {@link addPrinter} */
async function askNew(printer: Pick<StoredPrinter, 'uri' | 'access'>): Promise<PrinterStatus> {
  try {
    return await askStatus(addressOf(printer));
  } catch (error) {
    if (!(error instanceof IppError)) throw error;
    const { login, certificate, status, message } = error;
    if (login) {
      const detail =
        login === 'wanted' ? 'It asks for a name and a password.' : 'It does not take this name and password.';
      throw new Problem('login-wanted', detail);
    }
    if (certificate) {
      const detail =
        'Nobody vouches for its certificate. Compare the fingerprint with what the printer itself shows, then trust it.';
      throw new Problem('certificate-unknown', detail, { certificate });
    }
    const why = status === null ? 'No printer answers at this address' : message;
    throw new Problem('printer-away', `${why}. Look whether it is switched on, and how its address is written.`);
  }
}

/** What a person says that it takes to ask a printer, over what was said before. @throws Problem `not-found` */
export const letIn = (db: Database, id: string, said: SaidAccess): Promise<StoredPrinter> =>
  changePrinter(db, id, ({ access }) => ({ access: withAccess(access, said) }));

function freeId(name: string, known: readonly StoredPrinter[]): string {
  const words = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST_ID);
  const slug = words.replace(/^-|-$/g, '') || 'printer';
  const taken = new Set(known.map(({ id }) => id));
  let id = slug;
  for (let number = 2; taken.has(id); number += 1) id = `${slug}-${number}`;
  return id;
}

/** Forgets a printer that no job is set up for and nothing was sent to. @throws Problem `printer-in-use` */
export async function removePrinter(db: Database, { id, name }: StoredPrinter): Promise<void> {
  const [job] = await db.select({ id: jobs.id }).from(jobs).where(eq(jobs.printerId, id)).limit(1);
  const [sent] = await db.select({ id: sendings.id }).from(sendings).where(eq(sendings.printerId, id)).limit(1);
  const [many] = await db.select({ id: series.id }).from(series).where(eq(series.printerId, id)).limit(1);
  if (job || sent || many) {
    const why = job || many ? 'jobs are set up for it' : 'the queue tells what was sent to it';
    throw new Problem('printer-in-use', `${name} stays in the list: ${why}.`);
  }
  await db.delete(printers).where(eq(printers.id, id));
}

/**
 * What a person says of the paper in a tray, which the printer does not know, or reports otherwise.
 *
 * @throws Problem `not-found`; `body-invalid` where a size has no measure
 */
export function describePaper(db: Database, id: string, tray: string, said: SaidOfPaper): Promise<StoredPrinter> {
  return changePrinter(db, id, (printer) => {
    const profile = asReported(printer);
    const { size } = findLoaded({ ...printer, profile }, tray);
    const { size: holds, ...other } = said;
    if (typeof holds === 'string' && !readSizeName(holds)) throw new Problem('body-invalid', `"${holds}" is no size.`);
    const before = saidOf(printer.papers, tray, size);
    const now: SaidPaper = { ...before, ...other, size };
    const papers = { ...printer.papers, [tray]: holds === undefined ? now : withSize(now, holds) };
    return { papers, profile: withPapers(profile, papers) };
  });
}

/** @throws Problem `not-found` */
function findLoaded({ name, profile }: StoredPrinter, tray: string): Tray {
  const found = profile.trays.find(({ id }) => id === tray);
  if (!found) throw new Problem('not-found', `${name} has no tray "${tray}".`);
  return found;
}

/** What was said of a tray's paper, if the printer still reports the size that it did then. */
function saidOf(papers: StoredPrinter['papers'], tray: string, size: string): SaidPaper | null {
  const said = papers[tray];
  return said?.size === size ? said : null;
}

/** The profile with the sizes that the printer reports. */
const asReported = ({ profile, papers }: StoredPrinter): Printer => ({
  ...profile,
  trays: profile.trays.map((tray) => {
    const said = papers[tray.id];
    return said?.holds === tray.size ? { ...tray, size: said.size } : tray;
  }),
});

/** What the printer reports of the trays in which a person said that another size lies, by tray. */
export function reportedSizes({ profile, papers }: Pick<StoredPrinter, 'profile' | 'papers'>): Record<string, string> {
  const otherwise = profile.trays.flatMap(({ id, size }) => {
    const said = papers[id];
    return said && said.holds === size ? [[id, said.size] as const] : [];
  });
  return Object.fromEntries(otherwise);
}

/** What a person said of the paper goes before what the printer says: a person has seen it. */
function withPapers(profile: Printer, papers: StoredPrinter['papers']): Printer {
  const trays = profile.trays.map((tray): Tray => {
    const { holds, type, weight, price } = saidOf(papers, tray.id, tray.size) ?? {};
    const { size } = tray;
    return {
      ...tray,
      size: holds ?? size,
      type: type ?? tray.type,
      weight: weight ?? tray.weight,
      price: price ?? tray.price,
    };
  });
  return { ...profile, trays };
}

/** @param holds the size that a person says lies there; null, or the one reported: that one */
function withSize({ holds: _, ...said }: SaidPaper, holds: string | null): SaidPaper {
  return holds === null || holds === said.size ? said : { ...said, holds };
}

/** A size that a person said ends once the printer reports another than it did then: it has been seen to. */
function heard(papers: StoredPrinter['papers'], { trays }: Printer): StoredPrinter['papers'] {
  const ended = trays.flatMap(({ id, size }): [string, SaidPaper][] => {
    const said = papers[id];
    if (said?.holds === undefined || said.size === size) return [];
    return [[id, withSize(said.holds === size ? { ...said, size } : said, null)]];
  });
  return ended.length === 0 ? papers : { ...papers, ...Object.fromEntries(ended) };
}

/** What a printer does not tell of itself is kept from what is known: prices, weights it may turn, how it feeds. */
function withKnown(fresh: Printer, { profile, papers }: StoredPrinter): Printer {
  const { prices, maxDuplexWeight, maxStapled, twoSidedFactor, refeedTray, printsOn } = profile;
  const trays = fresh.trays.map((tray) => ({
    ...tray,
    price: profile.trays.find((one) => one.id === tray.id)?.price ?? 0,
  }));
  return withPapers(
    { ...fresh, trays, prices, maxDuplexWeight, maxStapled, twoSidedFactor, refeedTray, printsOn },
    papers,
  );
}
