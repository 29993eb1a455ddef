/** Fields by which a mail is known, whichever comes first (RFC 5322, 3.6; RFC 2045, 4). */
const FIELDS =
  /^(from|to|subject|date|message-id|mime-version|received|return-path|delivered-to|x-[\w-]+|reply-to|cc|content-[\w-]+|snapshot-content-location|dkim-signature|arc-[\w-]+|authentication-results)$/i;

/** Fields that no text has by chance. */
const SURE = /^(message-id|mime-version|received)$/i;

/** Bytes in which a mail shows itself. */
const BEGINNING = 16_384;

/** Whether a file begins as a mail does; one that is called so needs less to be one. */
export function isMail(bytes: Uint8Array, name: string): boolean {
  const names = fieldsOf(bytes).map(([field]) => field);
  if (names.length === 0 || !FIELDS.test(names[0]!)) return false;
  const isCalledSo = /\.(eml|mht|mhtml)$/i.test(name);
  return names.length > 1 && (isCalledSo || names.some((field) => SURE.test(field)));
}

/** Whether it is a web page that a browser saved with all that it shows (RFC 2557). */
export const isSavedPage = (bytes: Uint8Array, name: string): boolean =>
  /\.(mht|mhtml)$/i.test(name) ||
  fieldsOf(bytes).some(
    ([field, text]) =>
      /^snapshot-content-location$/i.test(field) || (/^from$/i.test(field) && /^["<]*saved by/i.test(text)),
  );

function fieldsOf(bytes: Uint8Array): [name: string, text: string][] {
  const start = Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, BEGINNING)).toString('latin1');
  const [head = ''] = start.replace(/^\ufeff|^ï»¿/, '').split(/\r?\n\r?\n/, 1);
  const fields: [string, string][] = [];
  for (const line of head.split(/\r?\n/)) {
    const [, name, text] = /^([\w-]+):\s*(.*)$/.exec(line) ?? [];
    if (name !== undefined) fields.push([name, text ?? '']);
    else if (!/^[ \t]/.test(line)) break;
  }
  return fields;
}
