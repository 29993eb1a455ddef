import { askProfile } from '@foglio/ipp';
import { DONE } from '../exit-status';
import { addressOf, type AccessOptions } from '../printer-address';
import { sayJson } from '../terminal';

/** `printer ipp://...`: the printer's profile as JSON. */
export async function printer(address: string, options: AccessOptions): Promise<number> {
  sayJson(await askProfile(await addressOf(address, options)));
  return DONE;
}
