/** What it takes to ask a printer, beside its address. */
export interface Access {
  /** SHA-256 of the certificate that a person trusts, "AB:CD:…"; null: only one that an authority vouches for. */
  readonly fingerprint: string | null;
  /** Where the printer asks who is asking. */
  readonly login: Login | null;
}

export interface Login {
  readonly name: string;
  readonly password: string;
}

/** Where a printer is asked; an address alone where that takes nothing else. */
export type PrinterAddress = string | { readonly uri: string; readonly access: Access };

const NOTHING: Access = { fingerprint: null, login: null };

export const uriOf = (printer: PrinterAddress): string => (typeof printer === 'string' ? printer : printer.uri);
export const accessOf = (printer: PrinterAddress): Access => (typeof printer === 'string' ? NOTHING : printer.access);
