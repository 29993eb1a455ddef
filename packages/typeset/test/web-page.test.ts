import {
  navigationByQpdf,
  pageSizes,
  pageTexts,
  qpdfComplaints,
  renderColour,
  wordPlaces,
} from '../../pdf/test/poppler';
import { documentKind } from '../src/kind';
import { browserForAll } from './lend';
import { letters } from './take';

const take = browserForAll();

const LOREM =
  'The orchestra rehearses on Mondays, and the strings stay for another hour of sectional work afterwards. ';

/** A page with all that stands around an article. */
const PAGE = `<!doctype html><html><head><meta charset="utf-8"><title>Season news</title>
<link rel="canonical" href="https://orchestra.example/news/7">
<style>nav{background:#123456;color:#fff;padding:40px}.wide td{white-space:nowrap}
@media print{.screen-only{display:none}}</style></head><body>
<nav><a href="/">Home</a> <a href="/shop">Shop tickets now</a></nav><div class="screen-only">Only on a screen</div>
<article><h1>Season news</h1><p class="byline">By Ada Reed</p>
${Array.from({ length: 30 }, (_, at) => `<p>Paragraph ${at}. ${LOREM.repeat(4)}</p>`).join('')}
<h2>Dates</h2><table class="wide"><tr>${Array.from({ length: 24 }, (_, at) => `<td>column number ${at}</td>`).join('')}</tr></table>
<p>See the <a href="https://hall.example/plan">plan of the hall</a>. ${LOREM.repeat(3)}</p>
<img src="hall.png" alt="the hall"></article>
${Array.from({ length: 80 }, (_, at) => `<aside><h3>Advertisement ${at}</h3><p>Buy strings.</p></aside>`).join('')}
<footer>All rights reserved</footer><script>document.body.innerHTML = 'taken over by a script'</script></body></html>`;

const page = letters(PAGE);
const text = async (form = {}): Promise<string> => pageTexts((await take('news.html', page, form)).bytes).join('');

test('a page as it is: for paper, its scripts not run, its headings the outline', async () => {
  const { bytes, laid, remarks } = await take('news.html', page);
  expect(qpdfComplaints(bytes)).toBe('');
  expect(laid).toMatchObject({ kind: 'web-page', form: {}, taken: { style: 'print', backgrounds: false } });
  const told = pageTexts(bytes).join('');
  expect(told).toContain('Shop tickets now');
  expect(told).not.toContain('Only on a screen');
  expect(told).not.toContain('taken over');
  expect(navigationByQpdf(bytes).outline.slice(0, 2)).toMatchObject([
    { title: 'Season news', level: 1, page: 1 },
    { title: 'Dates', level: 2 },
  ]);
  expect(remarks).toEqual([
    'A wide table is made smaller to fit the width.',
    'Not with the file, and nothing is fetched for it: hall.png.',
  ]);
});

test('a wide table is fitted to the width instead of cut', async () => {
  const { bytes } = await take('news.html', page);
  const [width] = pageSizes(bytes).map((size) => size.width);
  const places = wordPlaces(bytes).flat();
  const last = places.filter(({ word }) => word === '23').at(-1);
  expect(last).toBeDefined();
  expect(last!.x).toBeLessThan(width! - 50);
  expect(places.filter(({ word }) => word === 'column')).toHaveLength(24);
});

test('as on a screen, with its backgrounds', async () => {
  const told = await take('news.html', page, { style: 'screen' });
  expect(pageTexts(told.bytes).join('')).toContain('Only on a screen');
  const isBlue = async (form: object): Promise<boolean> => {
    const { pixels } = renderColour((await take('news.html', page, form)).bytes, 1, 40);
    return Array.from({ length: pixels.length / 3 }, (_, at) => at * 3).some(
      (at) => pixels[at]! < 40 && pixels[at + 1]! < 80 && pixels[at + 2]! > 60 && pixels[at + 2]! < 110,
    );
  };
  expect([await isBlue({ style: 'screen' }), await isBlue({}), await isBlue({ backgrounds: true })]).toEqual([
    true,
    false,
    true,
  ]);
});

test('the reading form is the article alone, with its title and source, on 40 % fewer pages', async () => {
  const [asItIs, reading] = [await take('news.html', page), await take('news.html', page, { style: 'reading' })];
  const told = pageTexts(reading.bytes).join('');
  expect(told).toMatch(/^\s*Season news\n/);
  expect(told).toContain('https://orchestra.example/news/7');
  for (const at of [0, 15, 29]) expect(told).toContain(`Paragraph ${at}.`);
  for (const left of ['Shop tickets', 'Advertisement', 'All rights reserved']) expect(told).not.toContain(left);
  expect(reading.facts.pages.length).toBeLessThanOrEqual(0.6 * asItIs.facts.pages.length);
  const large = await take('news.html', page, { style: 'reading', typeSize: 18 });
  expect(large.facts.pages.length).toBeGreaterThan(reading.facts.pages.length);
});

test('where no article can be told, that is said', async () => {
  await expect(take('a.html', letters('<!doctype html><p></p>'), { style: 'reading' })).rejects.toThrow(
    'It cannot be laid out so: no article can be told from the rest of this page. Print it as it is.',
  );
});

test('links as notes, and no pictures, where that is asked for', async () => {
  const told = await text({ links: true });
  expect(told).toMatch(/plan of the hall\s*\[1\]/);
  expect(told).toMatch(/1\. +https:\/\/hall\.example\/plan/);
  expect((await take('news.html', page, { pictures: false })).remarks.join(' ')).not.toContain('hall.png');
});

test('the size it asks for itself, unless another is asked for', async () => {
  const own = letters('<!doctype html><style>@page{size:A5;margin:1cm}</style><p>small');
  const widthOf = async (form = {}): Promise<number> =>
    Math.round(pageSizes((await take('a.html', own, form)).bytes)[0]!.width);
  expect([await widthOf(), await widthOf({ paper: 'iso_a4_210x297mm' })]).toEqual([420, 595]);
});

test.each<[string, number[], string]>([
  ['as it says itself', [...letters('<meta charset="iso-8859-1"><p>caf'), 0xe9], 'café'],
  ['as UTF-8 where it says nothing', [...letters('<!doctype html><p>café')], 'café'],
])('its letters are read %s', async (_what, bytes, word) => {
  expect(pageTexts((await take('a.html', new Uint8Array(bytes))).bytes)[0]).toContain(word);
});

test.each<[string, string, string]>([
  ['news.txt', '<!DOCTYPE html><p>hello', 'web-page'],
  ['news.csv', '<html><body>1,2', 'web-page'],
  ['news.md', '# Title', 'markdown'],
  ['news.txt', '# Title', 'text'],
  ['news.html', 'no mark-up at all', 'text'],
])('%s with %s is told by what is in it', (name, content, kind) => {
  expect(documentKind(letters(content), name)).toBe(kind);
});

describe('hostile pages', () => {
  test('ask for nothing outside: no file, no address within the house, no script', async () => {
    const hostile = `<!doctype html><img src="file:///etc/passwd"><iframe src="file:///etc/passwd"></iframe>
      <img src="http://127.0.0.1:8080/x.png"><link rel="stylesheet" href="http://169.254.169.254/a.css">
      <object data="http://10.0.0.1/a.pdf"></object><meta http-equiv="refresh" content="0;url=http://127.0.0.1/">
      <script>location='http://127.0.0.1/'</script><p>harmless</p>`;
    const { bytes, remarks } = await take('a.html', letters(hostile));
    expect(pageTexts(bytes).join('')).toContain('harmless');
    expect(pageTexts(bytes).join('')).not.toContain('root:');
    expect(remarks.join(' ')).toContain('nothing is fetched for it');
  });

  test('deep nesting and a million letters without a space end', async () => {
    const deep = `<!doctype html>${'<div>'.repeat(5_000)}deep${'</div>'.repeat(5_000)}<p>${'x'.repeat(1_000_000)}`;
    const { facts } = await take('a.html', letters(deep));
    expect(facts.pages.length).toBeGreaterThan(0);
  });
});
