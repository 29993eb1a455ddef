import type { Printer } from '@foglio/core';
import { uriOf, type PrinterAddress } from './access';
import { askPrinter, type Limits } from './client';
import { IppError } from './ipp-error';
import { allStrings, firstNumber, groupOf, keyword, OPERATIONS } from './message';
import { PROFILE_ATTRIBUTES, readProfile } from './profile';
import { readSupplies, SUPPLY_ATTRIBUTES, type Supply } from './supplies';

const STATUS_ATTRIBUTES = ['printer-state', 'printer-state-reasons', 'queued-job-count', ...SUPPLY_ATTRIBUTES];

/** A printer's own account of itself. */
export interface PrinterStatus {
  readonly profile: Printer;
  /** printer-state (RFC 8011, 5.4.11). */
  readonly state: 'idle' | 'processing' | 'stopped';
  /** printer-state-reasons; empty where there are none. */
  readonly reasons: readonly string[];
  /** Jobs that it has and has not ended (RFC 8011, 5.4.24); null where it does not say. */
  readonly queued: number | null;
  readonly supplies: readonly Supply[];
}

/** The profile of a printer, asked of the printer itself. @throws IppError */
export const askProfile = async (address: PrinterAddress): Promise<Printer> => (await askStatus(address)).profile;

/** What a printer is, and how it stands. @throws IppError */
export async function askStatus(address: PrinterAddress, limits: Partial<Limits> = {}): Promise<PrinterStatus> {
  const answer = await askPrinter(address, {
    limits,
    operation: OPERATIONS.getPrinterAttributes,
    operationAttributes: { 'requested-attributes': [...PROFILE_ATTRIBUTES, ...STATUS_ATTRIBUTES].map(keyword) },
  });
  try {
    const attributes = groupOf(answer, 'printer');
    const state = firstNumber(attributes, 'printer-state');
    return {
      profile: readProfile(attributes),
      state: state === 5 ? 'stopped' : state === 4 ? 'processing' : 'idle',
      reasons: allStrings(attributes, 'printer-state-reasons').filter((reason) => reason !== 'none'),
      queued: countOf(firstNumber(attributes, 'queued-job-count')),
      supplies: readSupplies(attributes),
    };
  } catch (error) {
    throw new IppError(`${uriOf(address)}: ${(error as Error).message}`, null);
  }
}

/** No count is below none. */
const countOf = (told: number | null): number | null => (told === null || told < 0 ? null : told);
