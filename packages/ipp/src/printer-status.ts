import type { Printer } from '@foglio/core';
import { askPrinter, type Limits } from './client';
import { IppError } from './ipp-error';
import { allStrings, firstNumber, groupOf, keyword, OPERATIONS } from './message';
import { PROFILE_ATTRIBUTES, readProfile } from './profile';

/** A printer's own account of itself. */
export interface PrinterStatus {
  readonly profile: Printer;
  /** printer-state (RFC 8011, 5.4.11). */
  readonly state: 'idle' | 'processing' | 'stopped';
  /** printer-state-reasons; empty where there are none. */
  readonly reasons: readonly string[];
}

/** The profile of a printer, asked of the printer itself. @throws IppError */
export const askProfile = async (printerUri: string): Promise<Printer> => (await askStatus(printerUri)).profile;

/** What a printer is, and how it stands. @throws IppError */
export async function askStatus(printerUri: string, limits: Partial<Limits> = {}): Promise<PrinterStatus> {
  const answer = await askPrinter(printerUri, {
    limits,
    operation: OPERATIONS.getPrinterAttributes,
    operationAttributes: { 'requested-attributes': PROFILE_ATTRIBUTES.map(keyword) },
  });
  try {
    const attributes = groupOf(answer, 'printer');
    const state = firstNumber(attributes, 'printer-state');
    return {
      profile: readProfile(attributes),
      state: state === 5 ? 'stopped' : state === 4 ? 'processing' : 'idle',
      reasons: allStrings(attributes, 'printer-state-reasons').filter((reason) => reason !== 'none'),
    };
  } catch (error) {
    throw new IppError(`${printerUri}: ${(error as Error).message}`, null);
  }
}
