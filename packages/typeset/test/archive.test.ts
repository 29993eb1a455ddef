import { pathsAskedFor } from '@foglio/core';
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import { pageSizes, pageTexts, renderColour } from '../../pdf/test/poppler';
import { takeInDocument } from '../src';
import { browserForAll } from './lend';
import { letters } from './take';

/** Pages with what they show beside them, and pictures of one batch. */
const take = browserForAll();

const picture = (background: string, size = 60, format: 'png' | 'jpeg' = 'png'): Promise<Buffer> =>
  sharp({ create: { width: size, height: size * 2, channels: 3, background } })
    .withMetadata({ density: 72 })
    [format]()
    .toBuffer();

/** How many of the colours asked for are on the first page. */
function coloursOn(pdf: Uint8Array): string[] {
  const { pixels } = renderColour(pdf, 1, 50);
  const found = new Set<string>();
  for (let at = 0; at < pixels.length; at += 3) {
    const [red, green, blue] = [pixels[at]!, pixels[at + 1]!, pixels[at + 2]!];
    if (red > 180 && green < 90 && blue < 90) found.add('red');
    if (blue > 180 && green < 90 && red < 90) found.add('blue');
  }
  return [...found].sort();
}

const HTML =
  '<!doctype html><link rel="stylesheet" href="style/page.css"><p>Season</p><img src="pictures/hall%20one.png?x=1"><img src="gone.png"><div class="b">&nbsp;</div>';

const site = async (): Promise<Record<string, Uint8Array>> => ({
  'page.html': letters(HTML),
  'pictures/hall one.png': await picture('#d02020'),
  'style/page.css': letters('.b{background:url("../pictures/blue.png");height:60px;print-color-adjust:exact}'),
  'pictures/blue.png': await picture('#2020d0'),
  'run.js': letters('document.body.textContent="taken over"'),
});

test('a page in a ZIP file, with its pictures and its style', async () => {
  const { bytes, laid, remarks } = await take('site.zip', zipSync(await site()));
  expect(laid).toMatchObject({ kind: 'web-page', form: {} });
  expect(coloursOn(bytes)).toEqual(['blue', 'red']);
  expect(remarks).toEqual(['Not with the file, and nothing is fetched for it: gone.png.']);
});

test('a page in a folder of it, and Markdown, find what is beside them', async () => {
  const within = Object.fromEntries(Object.entries(await site()).map(([name, bytes]) => [`site/${name}`, bytes]));
  expect(coloursOn((await take('site.zip', zipSync({ ...within, '__MACOSX/x.html': letters('x') }))).bytes)).toEqual([
    'blue',
    'red',
  ]);
  const text = {
    'readme.md': letters('# Title\n\n![hall](pictures/hall%20one.png)'),
    'pictures/hall one.png': await picture('#d02020'),
  };
  const markdown = await take('doc.zip', zipSync(text));
  expect([markdown.laid?.kind, coloursOn(markdown.bytes), markdown.remarks]).toEqual(['markdown', ['red'], []]);
});

test('what stands beside a file in its folder, where that can be read, and nothing outside of it', async () => {
  const files = await site();
  const asked: string[] = [];
  const readBeside = (path: string): Uint8Array | null => {
    asked.push(path);
    return files[path] ?? null;
  };
  const page = letters(
    `${HTML}<img src="../secret.png"><img src="/etc/x.png"><img src="file:///etc/y.png"><script src="run.js"></script>`,
  );
  const { bytes, remarks } = await takeInDocument(page, {
    name: 'page.html',
    form: {},
    password: null,
    today: '2026-09-01',
    readBeside,
  });
  expect(coloursOn(bytes)).toEqual(['blue', 'red']);
  expect(asked.sort()).toEqual(['gone.png', 'pictures/blue.png', 'pictures/hall one.png', 'style/page.css']);
  expect(remarks.join(' ')).toContain('gone.png');
});

test.each<[string, string[]]>([
  ['<img srcset="a.png 1x, b/c.png 2x" src=d.png>', ['a.png', 'b/c.png', 'd.png']],
  ["<a href='x/../y.css'>", ['y.css']],
  ['<img src="%E0%A4%A"><img src="../../z.png"><img src="data:image/png;base64,AA">', []],
  ['@import "print.css"; div{background:url(a%20b.png)}', ['a b.png', 'print.css']],
])('what %s asks for', (text, paths) => {
  expect(pathsAskedFor(text).sort()).toEqual(paths);
});

test('pictures of one batch are pages of one document, in the order of their names', async () => {
  const files = {
    'scan 10.png': await picture('#2020d0', 300),
    'scan 2.jpg': await picture('#d02020', 200, 'jpeg'),
    'scan 1.png': await picture('#fff', 100),
  };
  const { bytes, laid } = await take('scans.zip', zipSync(files));
  expect(laid).toBeUndefined();
  expect(pageSizes(bytes).map(({ width }) => Math.round(width))).toEqual([100, 200, 300]);
});

test('a page that a browser saved with all that it shows', async () => {
  const saved = [
    'From: <Saved by Blink>',
    'Snapshot-Content-Location: https://hall.example/news/page.html',
    'Subject: News',
    'MIME-Version: 1.0',
    'Content-Type: multipart/related; type="text/html"; boundary="----B"',
    '',
    '------B',
    'Content-Type: text/html',
    'Content-ID: <frame@mhtml.blink>',
    'Content-Transfer-Encoding: quoted-printable',
    'Content-Location: https://hall.example/news/page.html',
    '',
    '<html><head><link rel=3D"stylesheet" href=3D"cid:css-1@mhtml.blink"></head><body><p>Caf=C3=A9</p><img src=3D"https://hall.example/pictures/a.png?v=3D1"><div></div><img src=3D"../b.png"></body></html>',
    '------B',
    'Content-Type: image/png',
    'Content-Transfer-Encoding: base64',
    'Content-Location: https://hall.example/pictures/a.png?v=1',
    '',
    (await picture('#d02020')).toString('base64'),
    '------B',
    'Content-Type: text/css',
    'Content-Location: cid:css-1@mhtml.blink',
    '',
    'div{border:30px solid #2020d0}',
    '------B--',
    '',
  ].join('\r\n');
  const { bytes, laid, remarks } = await take('news.mhtml', strToU8(saved));
  expect(laid?.kind).toBe('web-page');
  expect(pageTexts(bytes).join('')).toContain('Café');
  expect(coloursOn(bytes)).toEqual(['blue', 'red']);
  expect(remarks).toEqual(['Not with the file, and nothing is fetched for it: https://hall.example/b.png.']);
});

test.each<[string, Record<string, Uint8Array>]>([
  ['nothing that is known', { 'a.bin': new Uint8Array([1]) }],
  ['a file of another program', { mimetype: strToU8('application/epub+zip'), 'a.xhtml': strToU8('<html>') }],
  ['pictures and something else', { 'a.png': new Uint8Array([1]), 'b.doc': new Uint8Array([2]) }],
  ['what only its name calls a picture', { 'a.png': strToU8('no picture') }],
])('a ZIP file with %s is refused, with what Foglio takes', async (_what, files) => {
  await expect(take('a.zip', zipSync(files))).rejects.toThrow(/^Foglio takes PDF/);
});
