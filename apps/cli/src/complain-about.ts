import { IppError } from '@foglio/ipp';
import { PdfError } from '@foglio/pdf/error';
import { InputError } from './input-error';
import { complain } from './terminal';

/** Says an error in one line. */
export function complainAbout(error: unknown): void {
  if (error instanceof IppError) complain(error.message + sayWanted(error));
  else if (error instanceof InputError || error instanceof PdfError) complain(error.message);
  else complain((error as Error).stack ?? String(error));
}

/** What a printer wants before it says more, and how it is given that. */
function sayWanted({ login, certificate }: IppError): string {
  if (certificate) return `: ${certificate.fingerprint} of “${certificate.subject}”; trust it with --trust FINGERPRINT`;
  return login === 'wanted' ? '; say them with --login FILE' : '';
}
