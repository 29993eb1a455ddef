import { damagedDocument } from '@foglio/pdf';
import PostalMime, { type Address, type Attachment, type Email } from 'postal-mime';

/** A mail as it was sent (RFC 5322), its parts decoded (RFC 2045). */
export interface Mail {
  /** What stands above its text: "From", "To", in the order in which it is read. */
  readonly head: readonly (readonly [name: string, text: string])[];
  readonly html: string | null;
  readonly text: string;
  readonly attachments: readonly MailPart[];
  /** What its text shows, by the ids of parts (RFC 2392). */
  readonly shown: readonly MailPart[];
}

export interface MailPart {
  /** No two of a mail have the same. */
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array;
  readonly id: string | null;
}

/** More parts than a person attaches. */
const MOST_PARTS = 500;

/** @throws PdfError where it cannot be read */
export async function parseMail(bytes: Uint8Array): Promise<Email> {
  try {
    return await PostalMime.parse(bytes, { forceRfc822Attachments: true, maxNestingDepth: 50 });
  } catch (error) {
    throw damagedDocument(`the mail cannot be read (${(error as Error).message.split('\n')[0]})`);
  }
}

/** The bytes of a part. */
export const bytesOf = ({ content }: Attachment): Uint8Array =>
  typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content as ArrayBuffer);

/** @throws PdfError where it cannot be read */
export async function readMail(bytes: Uint8Array): Promise<Mail> {
  const email = await parseMail(bytes);
  const parts = partsOf(email.attachments.slice(0, MOST_PARTS));
  const isShown = ({ id }: MailPart): boolean => id !== null && (email.html ?? '').includes(`cid:${id}`);
  const date = email.headers.find(({ key }) => key === 'date')?.value;
  const attachments = parts.filter((part) => !isShown(part));
  const head: (readonly [string, string | undefined])[] = [
    ['From', say(email.from ? [email.from] : undefined)],
    ['To', say(email.to)],
    ['Copy to', say(email.cc)],
    ['Sent', date?.replace(/\s*\([^)]*\)\s*$/, '').trim()],
    ['Subject', email.subject],
    ['Attached', attachments.map(({ name }) => name).join(', ')],
  ];
  return {
    head: head.flatMap(([name, text]): [string, string][] => (text ? [[name, text]] : [])),
    html: email.html ?? null,
    text: email.text ?? '',
    attachments,
    shown: parts.filter(isShown),
  };
}

const say = (addresses: readonly Address[] | undefined): string | undefined =>
  addresses
    ?.flatMap((one) => (one.group ? one.group : [one]))
    .map(({ name, address }) => (name && address ? `${name} <${address}>` : name || (address ?? '')))
    .join(', ');

/** Ends of names by types, for parts that have no name. */
const ENDS: Readonly<Record<string, string>> = {
  'message/rfc822': '.eml',
  'text/calendar': '.ics',
  'text/html': '.html',
  'text/plain': '.txt',
  'application/pdf': '.pdf',
};

function partsOf(attachments: readonly Attachment[]): MailPart[] {
  const taken = new Set<string>();
  return attachments.map((part, at) => {
    const { filename, mimeType, contentId } = part;
    const end = ENDS[mimeType] ?? (mimeType.startsWith('image/') ? `.${mimeType.slice('image/'.length)}` : '');
    const asked = (filename ?? '').split(/[\\/]/).at(-1)?.trim().slice(0, 200) || `attachment ${at + 1}${end}`;
    const name = nameUnlike(asked, taken);
    taken.add(name);
    return { name, type: mimeType, bytes: bytesOf(part), id: contentId?.replace(/^<|>$/g, '') ?? null };
  });
}

/** "plan (2).pdf" where there is a "plan.pdf". */
function nameUnlike(asked: string, taken: ReadonlySet<string>): string {
  const [, stem = asked, end = ''] = /^(.*?)(\.[^.]*)?$/.exec(asked) ?? [];
  for (let count = 1; ; count += 1) {
    const name = count === 1 ? asked : `${stem} (${count})${end}`;
    if (!taken.has(name)) return name;
  }
}
