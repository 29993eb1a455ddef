import fc from 'fast-check';
import { parse } from 'ipp';
import {
  boolean,
  collection,
  decodeMessage,
  encodeMessage,
  enumeration,
  integer,
  IppDecodeError,
  keyword,
  nameValue,
  OPERATIONS,
  rangeOf,
  type Attributes,
  type Message,
  type Value,
} from '../src';

/** Bytes written as in the tables of RFC 8010: hexadecimal numbers, and text in quotes. */
function bytes(table: string): Uint8Array {
  const parts = table.match(/"[^"]*"|[0-9a-f]+/gi) ?? [];
  return Buffer.concat(
    parts.map((part) => (part.startsWith('"') ? Buffer.from(part.slice(1, -1)) : Buffer.from(part, 'hex'))),
  );
}

const operation: Attributes = {
  'attributes-charset': [{ tag: 'charset', value: 'utf-8' }],
  'attributes-natural-language': [{ tag: 'naturalLanguage', value: 'en-us' }],
  'printer-uri': [{ tag: 'uri', value: 'ipp://printer.example.com/ipp/print/pinetree' }],
};

/** RFC 8010, appendix A.1, Print-Job request (the layout of the example, typed from memory). */
const PRINT_JOB = bytes(`
  0101 0002 00000001 01
  47 0012 "attributes-charset" 0005 "utf-8"
  48 001b "attributes-natural-language" 0005 "en-us"
  45 000b "printer-uri" 002c "ipp://printer.example.com/ipp/print/pinetree"
  42 0008 "job-name" 0006 "foobar"
  22 0016 "ipp-attribute-fidelity" 0001 01
  02
  21 0006 "copies" 0004 00000014
  44 0005 "sides" 0013 "two-sided-long-edge"
  03`);

const PRINT_JOB_MESSAGE: Message = {
  version: [1, 1],
  code: OPERATIONS.printJob,
  requestId: 1,
  groups: [
    {
      tag: 'operation',
      attributes: { ...operation, 'job-name': [nameValue('foobar')], 'ipp-attribute-fidelity': [boolean(true)] },
    },
    { tag: 'job', attributes: { copies: [integer(20)], sides: [keyword('two-sided-long-edge')] } },
  ],
};

const charsetAndLanguage = `
  47 0012 "attributes-charset" 0005 "utf-8"
  48 001b "attributes-natural-language" 0005 "en-us"`;
const { 'printer-uri': _target, ...answered } = operation;
const statusMessage = (value: string): Attributes => ({ ...answered, 'status-message': [{ tag: 'text', value }] });
const JOB_URI = 'ipp://printer.example.com/ipp/print/pinetree/147';

/** RFC 8010, appendix A.2, Print-Job response, successful (from memory). */
const PRINTED = bytes(`
  0101 0000 00000001 01 ${charsetAndLanguage}
  41 000e "status-message" 000d "successful-ok"
  02
  21 0006 "job-id" 0004 00000093
  45 0007 "job-uri" 0030 "${JOB_URI}"
  23 0009 "job-state" 0004 00000003
  03`);

const PRINTED_MESSAGE: Message = {
  version: [1, 1],
  code: 0x0000,
  requestId: 1,
  groups: [
    { tag: 'operation', attributes: statusMessage('successful-ok') },
    {
      tag: 'job',
      attributes: {
        'job-id': [integer(147)],
        'job-uri': [{ tag: 'uri', value: JOB_URI }],
        'job-state': [enumeration(3)],
      },
    },
  ],
};

/** RFC 8010, appendix A.3, Print-Job response, failure: what is not supported is given back (from memory). */
const REFUSED = bytes(`
  0101 040b 00000001 01 ${charsetAndLanguage}
  41 000e "status-message" 002f "client-error-attributes-or-values-not-supported"
  05
  21 0006 "copies" 0004 00000014
  10 0005 "sides" 0000
  03`);

const REFUSED_MESSAGE: Message = {
  version: [1, 1],
  code: 0x040b,
  requestId: 1,
  groups: [
    { tag: 'operation', attributes: statusMessage('client-error-attributes-or-values-not-supported') },
    { tag: 'unsupported', attributes: { copies: [integer(20)], sides: [{ tag: 'unsupported' }] } },
  ],
};

/** RFC 8010, appendix A.8, Get-Jobs request: several values of one attribute (from memory). */
const GET_JOBS = bytes(`
  0101 000a 0000007b 01 ${charsetAndLanguage}
  45 000b "printer-uri" 002c "ipp://printer.example.com/ipp/print/pinetree"
  21 0005 "limit" 0004 00000032
  44 0014 "requested-attributes" 0006 "job-id"
  44 0000 0008 "job-name"
  44 0000 000f "document-format"
  03`);

const GET_JOBS_MESSAGE: Message = {
  version: [1, 1],
  code: OPERATIONS.getJobs,
  requestId: 123,
  groups: [
    {
      tag: 'operation',
      attributes: {
        ...operation,
        limit: [integer(50)],
        'requested-attributes': ['job-id', 'job-name', 'document-format'].map(keyword),
      },
    },
  ],
};

/** RFC 8010, appendix A.9, Get-Jobs response: a group a job, a name with its language (from memory). */
const JOBS = bytes(`
  0101 0000 0000007b 01 ${charsetAndLanguage}
  41 000e "status-message" 000d "successful-ok"
  02
  21 0006 "job-id" 0004 00000093
  36 0008 "job-name" 000c 0005 "fr-ca" 0003 "fou"
  02
  21 0006 "job-id" 0004 00000095
  36 0008 "job-name" 0012 0005 "de-CH" 0009 "isch guet"
  03`);

const jobOf = (id: number, language: string, text: string): Message['groups'][number] => ({
  tag: 'job',
  attributes: { 'job-id': [integer(id)], 'job-name': [{ tag: 'nameWithLanguage', value: { language, text } }] },
});

const JOBS_MESSAGE: Message = {
  version: [1, 1],
  code: 0x0000,
  requestId: 123,
  groups: [
    { tag: 'operation', attributes: statusMessage('successful-ok') },
    jobOf(147, 'fr-ca', 'fou'),
    jobOf(149, 'de-CH', 'isch guet'),
  ],
};

/** RFC 8010, section 3.1.6 and appendix A.7: a collection within a collection (from memory). */
const MEDIA_COL = bytes(`
  0200 0005 00000001 02
  34 0009 "media-col" 0000
    4a 0000 000a "media-size" 34 0000 0000
      4a 0000 000b "x-dimension" 21 0000 0004 00005208
      4a 0000 000b "y-dimension" 21 0000 0004 00007404
    37 0000 0000
    4a 0000 000c "media-source" 44 0000 0006 "tray-2"
  37 0000 0000
  03`);

const MEDIA_COL_MESSAGE: Message = {
  version: [2, 0],
  code: OPERATIONS.createJob,
  requestId: 1,
  groups: [
    {
      tag: 'job',
      attributes: {
        'media-col': [
          collection({
            'media-size': [collection({ 'x-dimension': [integer(21000)], 'y-dimension': [integer(29700)] })],
            'media-source': [keyword('tray-2')],
          }),
        ],
      },
    },
  ],
};

describe('against the examples of RFC 8010', () => {
  test.each([
    ['A.1 Print-Job', PRINT_JOB, PRINT_JOB_MESSAGE],
    ['A.2 Print-Job, successful', PRINTED, PRINTED_MESSAGE],
    ['A.3 Print-Job, refused', REFUSED, REFUSED_MESSAGE],
    ['A.8 Get-Jobs', GET_JOBS, GET_JOBS_MESSAGE],
    ['A.9 Get-Jobs, answered', JOBS, JOBS_MESSAGE],
    ['A.7 collections', MEDIA_COL, MEDIA_COL_MESSAGE],
  ])('%s, both ways', (_name, raw, message) => {
    expect(Buffer.from(encodeMessage(message)).toString('hex')).toBe(Buffer.from(raw).toString('hex'));
    expect(decodeMessage(raw)).toEqual({ message, dataOffset: raw.length });
  });

  test('document data begins behind the end-of-attributes tag', () => {
    const withData = Buffer.concat([PRINT_JOB, Buffer.from('%PDF-1.7')]);
    expect(withData.subarray(decodeMessage(withData).dataOffset).toString()).toBe('%PDF-1.7');
  });
});

describe('the second opinion reads what we write', () => {
  test('sets, ranges and collections inside collections, as overrides need them', () => {
    const overrides = [
      collection({ pages: [rangeOf(1, 1), rangeOf(6, 6)], sides: [keyword('one-sided')] }),
      collection({ pages: [rangeOf(9, 9)], 'media-col': [collection({ 'media-source': [keyword('tray-3')] })] }),
    ];
    const read = parse(
      Buffer.from(
        encodeMessage({
          version: [2, 0],
          code: OPERATIONS.createJob,
          requestId: 7,
          groups: [
            { tag: 'operation', attributes: operation },
            { tag: 'job', attributes: { overrides, 'print-quality': [enumeration(4)] } },
          ],
        }),
      ),
    );
    expect(read).toMatchObject({ version: '2.0', operation: 'Create-Job', id: 7 });
    expect(read['job-attributes-tag']?.['overrides']).toEqual([
      {
        pages: [
          [1, 1],
          [6, 6],
        ],
        sides: 'one-sided',
      },
      { pages: [9, 9], 'media-col': { 'media-source': 'tray-3' } },
    ]);
  });
});

describe('laws', () => {
  const name = fc.stringMatching(/^[a-z][a-z0-9-]{0,20}$/);
  const int = fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 });
  const simple: fc.Arbitrary<Value> = fc.oneof(
    int.map(integer),
    int.map(enumeration),
    fc.boolean().map(boolean),
    fc.string().map(keyword),
    fc.tuple(int, int).map(([lower, upper]) => rangeOf(lower, upper)),
    fc.uint8Array({ maxLength: 40 }).map((value): Value => ({ tag: 'octetString', value })),
    fc.record({ language: name, text: fc.string() }).map((value): Value => ({ tag: 'nameWithLanguage', value })),
    fc
      .record({ cross: int, feed: int, unit: fc.constantFrom(3, 4) })
      .map((value): Value => ({ tag: 'resolution', value })),
    fc.constantFrom<Value>({ tag: 'no-value' }, { tag: 'unknown' }, { tag: 'unsupported' }),
  );
  const { value } = fc.letrec<{ value: Value; attributes: Attributes }>((tie) => ({
    value: fc.oneof({ depthSize: 'small', maxDepth: 4 }, simple, tie('attributes').map(collection)),
    attributes: fc.dictionary(name, fc.array(tie('value'), { minLength: 1, maxLength: 3 }), { maxKeys: 4 }),
  }));
  const attributes = fc.dictionary(name, fc.array(value, { minLength: 1, maxLength: 3 }), { maxKeys: 5 });

  test('law: reading what was written gives the same message', () => {
    fc.assert(
      fc.property(attributes, attributes, int, (first, second, requestId) => {
        const message: Message = {
          version: [2, 0],
          code: OPERATIONS.createJob,
          requestId,
          groups: [
            { tag: 'operation', attributes: first },
            { tag: 'job', attributes: second },
          ],
        };
        expect(JSON.stringify(decodeMessage(encodeMessage(message)).message)).toBe(JSON.stringify(message));
      }),
      { numRuns: 500 },
    );
  });

  test('law: no bytes make the reader throw anything but its own error', () => {
    const spoiled = fc.tuple(fc.nat(PRINT_JOB.length - 1), fc.integer({ min: 0, max: 255 })).map(([at, byte]) => {
      const copy = Uint8Array.from(PRINT_JOB);
      copy[at] = byte;
      return copy;
    });
    fc.assert(
      fc.property(fc.oneof(fc.uint8Array({ maxLength: 200 }), spoiled), (any) => {
        try {
          decodeMessage(any);
        } catch (error) {
          expect(error).toBeInstanceOf(IppDecodeError);
        }
      }),
      { numRuns: 3000 },
    );
  });

  test('a message cut short says so, wherever it is cut', () => {
    for (let length = 0; length < MEDIA_COL.length; length += 1) {
      expect(() => decodeMessage(MEDIA_COL.subarray(0, length))).toThrow(IppDecodeError);
    }
  });

  test('a field too long for its length is refused, not cut', () => {
    const attributes = { 'job-name': [nameValue('x'.repeat(40_000))] };
    const message: Message = { version: [2, 0], code: 5, requestId: 1, groups: [{ tag: 'job', attributes }] };
    expect(() => encodeMessage(message)).toThrow(RangeError);
  });
});
