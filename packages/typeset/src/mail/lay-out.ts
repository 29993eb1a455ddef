import type { LaidPages } from '../laid-pages';
import { layOutFlowing, printFlowing, type Flowing } from '../flow/lay-out';
import { documentKind } from '../kind';
import { mailPage } from './mail-page';
import { readMail, type MailPart } from './read-mail';
import { readSavedPage } from './saved-page';

/** Has a browser lay out a mail's message; what is attached to it are documents of their own. */
export async function layOutMail(bytes: Uint8Array, flowing: Flowing): Promise<LaidPages> {
  const mail = await readMail(bytes);
  const { document, laid } = mailPage(mail, flowing.form);
  const isKnown = ({ bytes: held, name }: MailPart): boolean => held.length > 0 && documentKind(held, name) !== null;
  const attachments = mail.attachments.filter(isKnown).map(({ name }) => name);
  const unknown = mail.attachments.filter((part) => !isKnown(part)).map(({ name }) => name);
  const { remarks, ...made } = await printFlowing(document, { ...laid, attachments }, flowing);
  return { ...made, remarks: [...remarks, ...remarksOnUnknown(unknown)] };
}

const remarksOnUnknown = (names: readonly string[]): string[] => {
  if (names.length === 0) return [];
  return [`Attached, of a kind that is not known here, and not printed: ${names.slice(0, 5).join(', ')}.`];
};

/** Has a browser lay out a page that was saved with all that it shows. */
export async function layOutSavedPage(bytes: Uint8Array, flowing: Flowing): Promise<LaidPages> {
  const { bytes: page, address, beside } = await readSavedPage(bytes);
  const place = /^https?:/i.test(address) ? { address } : {};
  return layOutFlowing(page, 'web-page', { ...flowing, beside, ...place });
}
