import type { Opening } from './document-file';
import { passwordSource } from './password';
import { complain } from './terminal';

/** Options of every command that opens documents. */
export interface OpeningOptions {
  readonly passwordFile?: string;
}

export const openingOf = ({ passwordFile }: OpeningOptions): Opening => ({
  askPassword: passwordSource(passwordFile),
  remark: complain,
});
