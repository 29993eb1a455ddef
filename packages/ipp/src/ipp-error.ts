import type { Certificate } from './certificate';

/** What more is known of why a printer could not be asked, or refused. */
export interface IppErrorDetails {
  /** Whether the printer had already made a job of it, which it may or may not have got whole. */
  readonly jobCreated?: boolean;
  /** Whether there was a connection at all; without one nothing can have been taken. */
  readonly reached?: boolean;
  /** What kept it from answering, without the name of who was asked. */
  readonly why?: string;
  /** Whether it asks who is asking, or does not take who says so. */
  readonly login?: 'wanted' | 'refused';
  /** One that nobody vouches for; nothing was asked. */
  readonly certificate?: Certificate;
  /** Names of the attributes that it does not take. */
  readonly unsupported?: readonly string[];
}

/** A printer that could not be reached, or that refused. */
export class IppError extends Error {
  override readonly name = 'IppError';
  readonly jobCreated: boolean;
  readonly reached: boolean;
  readonly unsupported: readonly string[];
  readonly why: string | null;
  readonly login: 'wanted' | 'refused' | null;
  readonly certificate: Certificate | null;

  /** @param status the standard's status code, or null where the printer did not answer in IPP */
  constructor(
    message: string,
    readonly status: number | null,
    { jobCreated = false, reached = true, unsupported = [], why, login, certificate }: IppErrorDetails = {},
  ) {
    super(message);
    this.jobCreated = jobCreated;
    this.reached = reached;
    this.unsupported = unsupported;
    this.why = why ?? null;
    this.login = login ?? null;
    this.certificate = certificate ?? null;
  }
}
