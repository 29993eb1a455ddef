import { allStrings, decodeMessage, OPERATIONS, STATUS } from '@foglio/ipp';
import fc from 'fast-check';
import { declaredIn } from '../../../packages/ipp/test/standard-syntaxes';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { AskedDesk, integer, keyword, name } from './asked-desk';

/** The Desk as the standards want a printer, and against what keeps to none. */

let desk: AskedDesk;

beforeAll(async () => {
  desk = await AskedDesk.open();
});
afterAll(() => desk.close());

// What PWG 5100.14-2020 requires (5.1 operations, 5.3 to 5.5 attributes), each with where it is declared; from memory.
const REQUIRED_OPERATIONS = [
  ['printJob', 'RFC 8011, 4.2.1'],
  ['validateJob', 'RFC 8011, 4.2.3'],
  ['createJob', 'RFC 8011, 4.2.4'],
  ['sendDocument', 'RFC 8011, 4.3.1'],
  ['cancelJob', 'RFC 8011, 4.3.3'],
  ['getJobAttributes', 'RFC 8011, 4.3.4'],
  ['getJobs', 'RFC 8011, 4.2.6'],
  ['getPrinterAttributes', 'RFC 8011, 4.2.5'],
  ['cancelMyJobs', 'PWG 5100.11, 4.2'],
  ['closeJob', 'PWG 5100.7, 5.1'],
  ['identifyPrinter', 'PWG 5100.13, 4.1'],
] as const;

const REQUIRED_ATTRIBUTES = `charset-configured charset-supported color-supported compression-supported copies-default
copies-supported document-format-default document-format-supported finishings-default finishings-supported
generated-natural-language-supported identify-actions-default identify-actions-supported ipp-features-supported
ipp-versions-supported job-creation-attributes-supported job-ids-supported media-bottom-margin-supported media-col-database
media-col-default media-col-ready media-col-supported media-default media-left-margin-supported media-ready
media-right-margin-supported media-size-supported media-source-supported media-supported media-top-margin-supported
media-type-supported multiple-document-jobs-supported multiple-operation-time-out multiple-operation-time-out-action
natural-language-configured operations-supported orientation-requested-default orientation-requested-supported
output-bin-default output-bin-supported overrides-supported page-ranges-supported pdl-override-supported
preferred-attributes-supported print-color-mode-default print-color-mode-supported print-content-optimize-default
print-content-optimize-supported print-quality-default print-quality-supported print-rendering-intent-default
print-rendering-intent-supported print-scaling-supported printer-alert printer-alert-description printer-config-change-date-time
printer-config-change-time printer-current-time printer-device-id printer-geo-location printer-get-attributes-supported
printer-icons printer-info printer-input-tray printer-is-accepting-jobs printer-location printer-make-and-model
printer-more-info printer-name printer-organization printer-organizational-unit printer-output-tray
printer-resolution-default printer-resolution-supported printer-state printer-state-change-date-time
printer-state-change-time printer-state-message printer-state-reasons printer-supply printer-supply-description
printer-supply-info-uri printer-up-time printer-uri-supported printer-uuid pwg-raster-document-resolution-supported
pwg-raster-document-sheet-back pwg-raster-document-type-supported queued-job-count sides-default sides-supported
uri-authentication-supported uri-security-supported which-jobs-supported`.split(/\s+/);

test.each(REQUIRED_ATTRIBUTES.map((name) => [name, declaredIn(name)] as const))(
  '%s is told (%s)',
  async (attribute, section) => {
    expect(section).toMatch(/^(RFC|PWG) \d+/);
    const asked = { 'requested-attributes': keyword(attribute) };
    const { code, groups } = await desk.post(desk.message(OPERATIONS.getPrinterAttributes, asked));
    expect(code).toBe(STATUS.ok);
    const told = groups.find(({ tag }) => tag === 'printer')?.attributes ?? {};
    expect(Object.keys(told)).toEqual([attribute]);
    expect(told[attribute]!.length).toBeGreaterThan(0);
  },
);

test.each(REQUIRED_OPERATIONS)('%s is done (%s)', async (operation) => {
  const answer = await desk.post(desk.message(OPERATIONS[operation], { 'job-id': integer(2 ** 30) }));
  expect([STATUS.operationNotSupported, STATUS.internalError]).not.toContain(answer.code);
});

test('its icons are pictures of the size they are named by, where it is asked (PWG 5100.13, 5.6.9)', async () => {
  const asked = { 'requested-attributes': keyword('printer-icons') };
  const { groups } = await desk.post(desk.message(OPERATIONS.getPrinterAttributes, asked));
  const icons = allStrings(groups.at(-1)!.attributes, 'printer-icons');
  const widths = icons.map(async (icon) => {
    const answer = await fetch(icon.replace(/:\d+\//, `:${new URL(desk.url).port}/`));
    expect(answer.headers.get('content-type')).toBe('image/png');
    // ISO/IEC 15948, 11.2.2: the width is the first of IHDR.
    return Buffer.from(await answer.arrayBuffer()).readUInt32BE(16);
  });
  expect(await Promise.all(widths)).toEqual([48, 128, 512]);
  expect((await fetch(icons[0]!.replace('icon-48', 'icon-49'))).status).toBe(404);
});

test('nothing is fetched from elsewhere: Print-URI and Send-URI are no operations of it', async () => {
  // 0x0003 and 0x0007 (RFC 8011, 5.4.15).
  for (const code of [0x0003, 0x0007]) {
    const answer = await desk.post(
      desk.message(code, { 'document-uri': [{ tag: 'uri', value: 'http://127.0.0.1:1/x.pdf' }] }),
    );
    expect(answer.code).toBe(STATUS.operationNotSupported);
  }
});

test('a request of RFC 8010, appendix A.1, byte by byte, is understood', async () => {
  const parts: number[] = [0x02, 0x00, 0x00, 0x02, 0x00, 0x00, 0x00, 0x01, 0x01];
  const put = (tag: number, attribute: string, value: string): void => {
    parts.push(tag, 0, attribute.length, ...Buffer.from(attribute), 0, value.length, ...Buffer.from(value));
  };
  put(0x47, 'attributes-charset', 'utf-8');
  put(0x48, 'attributes-natural-language', 'en-us');
  put(0x45, 'printer-uri', 'ipp://printer.example.com/ipp/print/pinetree');
  put(0x42, 'job-name', 'foobar');
  parts.push(0x22, 0, 22, ...Buffer.from('ipp-attribute-fidelity'), 0, 1, 1);
  parts.push(0x02);
  parts.push(0x21, 0, 6, ...Buffer.from('copies'), 0, 4, 0, 0, 0, 20);
  put(0x44, 'sides', 'two-sided-long-edge');
  parts.push(0x03);
  const answer = await desk.post(Uint8Array.from(parts), numberedPdf(2));
  expect(answer.code).toBe(STATUS.ok);
  expect((await desk.jobNamed('foobar')).ticket).toMatchObject({ copies: 20, sides: 'two-sided' });
});

test('what makes no sense is refused with the standard’s status (RFC 8011, 4.1)', async () => {
  const statusOf = async (bytes: Uint8Array): Promise<number> => (await desk.post(bytes)).code;
  const good = desk.message(OPERATIONS.getPrinterAttributes, {});
  const changed = (at: number, ...bytes: number[]): Uint8Array => {
    const copy = Uint8Array.from(good);
    copy.set(bytes, at);
    return copy;
  };
  expect(await statusOf(changed(0, 9, 9))).toBe(STATUS.versionNotSupported);
  expect(await statusOf(changed(4, 0, 0, 0, 0))).toBe(STATUS.badRequest);
  expect(await statusOf(good.subarray(0, 30))).toBe(STATUS.badRequest);
  const latin = Buffer.from(Buffer.from(good).toString('latin1').replace('utf-8', 'latin'), 'latin1');
  expect(await statusOf(latin)).toBe(STATUS.charsetNotSupported);
  const url = desk.url;
  expect((await fetch(url)).status).toBe(405);
  expect((await fetch(url, { method: 'POST', body: 'x' })).status).toBe(415);
  const headers = { 'Content-Type': 'application/ipp' };
  expect((await fetch(url.replace('/desk', '/nobody'), { method: 'POST', headers, body: good })).status).toBe(404);
});

test('whatever comes, it is answered in IPP and the next request too', async () => {
  const base = desk.message(OPERATIONS.printJob, { 'job-name': name('Fuzz') }, { copies: integer(2) });
  const url = desk.url;
  const mutated = fc
    .array(fc.tuple(fc.nat(base.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 })
    .map((changes) => {
      const copy = Uint8Array.from(base);
      for (const [at, value] of changes) copy[at] = value;
      return copy;
    });
  await fc.assert(
    fc.asyncProperty(fc.oneof(mutated, fc.uint8Array({ maxLength: 200 })), async (body) => {
      const answer = await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/ipp' }, body });
      const { code } = decodeMessage(new Uint8Array(await answer.arrayBuffer())).message;
      expect(Object.values<number>(STATUS)).toContain(code);
      expect(code).not.toBe(STATUS.internalError);
    }),
    { numRuns: 200 },
  );
  expect((await desk.post(desk.message(OPERATIONS.getPrinterAttributes, {}))).code).toBe(STATUS.ok);
});
