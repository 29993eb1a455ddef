import { readFileSync } from 'node:fs';
import { readPrinter } from '@foglio/core/validate';
import type { KnownPrinter } from './printers/printer-store';

export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  /** The built web application. */
  readonly webFolder: string;
  readonly uploadLimit: number;
  readonly printers: readonly KnownPrinter[];
}

interface PrinterEntry {
  readonly id: string;
  readonly uri: string;
  readonly panel?: string;
  readonly profile: string;
}

/**
 * Reads the configuration from the environment: `DATABASE_URL`, `PORT`, `FOGLIO_UPLOAD_MB`, `FOGLIO_WEB`, and
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
