import { readFileSync } from 'node:fs';
import { readPrinter } from '@foglio/core/validate';
import type { SweepLimits } from './retention/sweep';
import type { KnownPrinter } from './printers/printer-store';

export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  /** The built web application. */
  readonly webFolder: string;
  readonly uploadLimit: number;
  /** Where Foglio can be printed to; other machines can only where the host is not loopback. */
  readonly ipp: { readonly host: string; readonly port: number; readonly announce: boolean };
  /** How long is kept what nobody needs: records of what was printed, and documents that nothing refers to. */
  readonly limits: SweepLimits;
  /** How long a set that is out waits for a person before they are asked again, in milliseconds. */
  readonly askAgainMs: number;
  readonly printers: readonly KnownPrinter[];
}

interface PrinterEntry {
  readonly id: string;
  readonly uri: string;
  readonly panel?: string;
  readonly profile: string;
}

/**
 * Reads the configuration from the environment: `DATABASE_URL`, `PORT`, `FOGLIO_UPLOAD_MB`, `FOGLIO_WEB`,
 * `FOGLIO_KEEP_DAYS`, `FOGLIO_GRACE_HOURS`, `FOGLIO_ASK_AGAIN_MINUTES`,
 * `FOGLIO_IPP_HOST`, `FOGLIO_IPP_PORT` and `FOGLIO_DNS_SD` ("yes") for printing to Foglio, and
 * `FOGLIO_PRINTERS`, a JSON list of `{ id, uri, panel?, profile }` with the path of a profile file.
 *
 * @throws Error naming the variable at fault
 */
export function readConfig(env: NodeJS.ProcessEnv, webFolder: string): Config {
  const databaseUrl = env['DATABASE_URL'];
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; start with "npm start", which sets it');
  const entries = JSON.parse(env['FOGLIO_PRINTERS'] ?? '[]') as PrinterEntry[];
  return {
    databaseUrl,
    port: numberIn(env, 'PORT', 4800),
    webFolder: env['FOGLIO_WEB'] ?? webFolder,
    uploadLimit: numberIn(env, 'FOGLIO_UPLOAD_MB', 512) * 1024 * 1024,
    ipp: {
      host: env['FOGLIO_IPP_HOST'] ?? '127.0.0.1',
      port: numberIn(env, 'FOGLIO_IPP_PORT', 8632),
      announce: env['FOGLIO_DNS_SD'] === 'yes',
    },
    limits: {
      keepDays: numberIn(env, 'FOGLIO_KEEP_DAYS', 90),
      graceHours: numberIn(env, 'FOGLIO_GRACE_HOURS', 24),
    },
    askAgainMs: numberIn(env, 'FOGLIO_ASK_AGAIN_MINUTES', 60) * 60_000,
    printers: entries.map(({ id, uri, panel, profile }) => ({
      id,
      uri,
      panel: panel ?? null,
      profile: readPrinter(JSON.parse(readFileSync(profile, 'utf8'))),
    })),
  };
}

function numberIn(env: NodeJS.ProcessEnv, name: string, otherwise: number): number {
  const value = Number(env[name] ?? otherwise);
  if (!Number.isFinite(value) || value < 0) throw new Error(`${name} must be a number, not "${env[name]}"`);
  return value;
}
