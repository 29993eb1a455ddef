import { firstString, STATUS, type Message } from '../message';
import { Refusal } from './served-printer';

/** Charsets that are understood (RFC 8011, 4.1.4.1): UTF-8, and what is part of it. */
const CHARSETS = ['utf-8', 'us-ascii'];

/**
 * What holds for every request (RFC 8011, sections 4.1.1 and 4.1.4): a version that is known, a number, and operation
 * attributes that begin with charset and language.
 *
 * @throws Refusal
 */
export function requireWellFormed({ version, requestId, groups }: Message): void {
  const [major] = version;
  if (major < 1 || major > 2)
    throw new Refusal(STATUS.versionNotSupported, `version ${version.join('.')} is not supported`);
  if (requestId < 1) throw new Refusal(STATUS.badRequest, 'request-id is not a number from 1');
  const [first] = groups;
  if (first?.tag !== 'operation') throw new Refusal(STATUS.badRequest, 'the operation attributes do not come first');
  const [charset, language] = Object.keys(first.attributes);
  if (charset !== 'attributes-charset' || language !== 'attributes-natural-language') {
    throw new Refusal(
      STATUS.badRequest,
      'the operation attributes do not begin with attributes-charset and attributes-natural-language',
    );
  }
  const said = firstString(first.attributes, 'attributes-charset')?.toLowerCase() ?? '';
  if (!CHARSETS.includes(said)) throw new Refusal(STATUS.charsetNotSupported, `the charset ${said} is not supported`);
}
