/** What it takes to ask a printer, as it is kept. */
export interface StoredAccess {
  /** SHA-256 of the certificate that a person trusts. */
  readonly fingerprint: string | null;
  readonly login: { readonly name: string; readonly sealed: string } | null;
}
