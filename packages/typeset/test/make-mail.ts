/** A part of a mail, as it is written into it. */
export interface WrittenPart {
  readonly type: string;
  readonly name?: string;
  readonly id?: string;
  readonly bytes: Uint8Array;
}

const BOUNDARY = 'next-part';

const wrapped = (bytes: Uint8Array): string =>
  (
    Buffer.from(bytes)
      .toString('base64')
      .match(/.{1,76}/g) ?? []
  ).join('\r\n');

/** A mail (RFC 5322, RFC 2045), its text first and then its parts. */
export function mailFile(
  text: { readonly html?: string; readonly plain?: string },
  parts: readonly WrittenPart[] = [],
  fields: Readonly<Record<string, string>> = {},
): Uint8Array {
  const head = {
    From: 'Ada Reed <ada@orchestra.example>',
    To: 'Bo Lind <bo@hall.example>, office@hall.example',
    Date: 'Mon, 30 Nov 2026 10:15:00 +0100',
    Subject: '=?utf-8?Q?Pl=C3=A4ne_f=C3=BCr_den_Mai?=',
    'MIME-Version': '1.0',
    'Content-Type': `multipart/mixed; boundary="${BOUNDARY}"`,
    ...fields,
  };
  const body: WrittenPart =
    text.html === undefined
      ? { type: 'text/plain; charset=utf-8', bytes: Buffer.from(text.plain ?? '') }
      : { type: 'text/html; charset=utf-8', bytes: Buffer.from(text.html) };
  const written = [body, ...parts].map(({ type, name, id, bytes }) =>
    [
      `--${BOUNDARY}`,
      `Content-Type: ${type}`,
      'Content-Transfer-Encoding: base64',
      ...(name === undefined ? [] : [`Content-Disposition: attachment; filename="${name}"`]),
      ...(id === undefined ? [] : [`Content-ID: <${id}>`]),
      '',
      wrapped(bytes),
    ].join('\r\n'),
  );
  return Buffer.from(
    `${Object.entries(head)
      .map(([name, value]) => `${name}: ${value}`)
      .join('\r\n')}\r\n\r\n${written.join('\r\n')}\r\n--${BOUNDARY}--\r\n`,
  );
}
