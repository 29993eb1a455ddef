import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PdfFacts } from '@foglio/pdf';
import { makePdf, stream } from '../../../packages/pdf/test/make-pdf';
import { keptAt } from '../src/known-facts';
import { main } from '../src/main';
import { atCommandLine } from './at-command-line';

const cli = atCommandLine();

const foglio = (...args: string[]): Promise<number> => main(['node', 'foglio', ...args]);

interface Kept {
  build: number;
  facts: { pages: PdfFacts['pages'][number][] };
}

const folder = (): string => join(cli.at('cache'), 'foglio');
const firstPage = async (): Promise<object> => {
  cli.forget();
  expect(await foglio('pages', '--json', cli.at('manual.pdf'))).toBe(0);
  return (JSON.parse(cli.printed) as [{ pages: object[] }])[0].pages[0]!;
};

const TRIMMED = { documents: [{ file: 'manual.pdf', part: 'content' }] };

test.each<[string, object, boolean]>([
  ['as it is', { documents: [{ file: 'manual.pdf' }] }, false],
  ['whose pages are chosen by their colour', { documents: [{ file: 'manual.pdf', pages: 'all color, 1' }] }, true],
  ['whose white margins are trimmed', TRIMMED, true],
  [
    'whose white margins are trimmed by a route',
    { documents: [{ file: 'manual.pdf' }], routes: [{ pages: '1', part: 'content' }] },
    true,
  ],
])('a document %s is imposed after only what is needed was found out of its pages', async (_what, ticket, looks) => {
  writeFileSync(cli.at('impose.json'), JSON.stringify({ version: 1, ...ticket }));
  cli.write('manual.pdf', Buffer.concat([readFileSync(cli.at('manual.pdf')), Buffer.from(`% ${_what}\n`)]));
  expect([await foglio('impose', cli.at('impose.json'), '-o', cli.at('out.pdf')), cli.complained]).toEqual([0, '']);
  const path = keptAt(readFileSync(cli.at('manual.pdf')));
  const { pages } = (JSON.parse(readFileSync(path, 'utf8')) as Kept).facts;
  expect(pages.some(({ content }) => content !== undefined)).toBe(looks);
});

test('pages of pictures are kept once they are looked through, and the next command goes by that', async () => {
  // What makes a page as large as a picture does.
  const pictures = makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595.276 841.89] >>',
    3: '<< /Type /Page /Parent 2 0 R /Contents 4 0 R >>',
    4: stream(`0 0 9 9 re f${' '.repeat(150_000)}`),
  });
  cli.write('picture.pdf', pictures);
  writeFileSync(cli.at('impose.json'), JSON.stringify({ version: 1, documents: [{ file: 'picture.pdf' }] }));
  const looked = async (): Promise<object> => {
    cli.forget();
    expect(await foglio('pages', '--json', cli.at('picture.pdf'))).toBe(0);
    return (JSON.parse(cli.printed) as [{ pages: object[] }])[0].pages[0]!;
  };
  expect([await foglio('impose', cli.at('impose.json'), '-o', cli.at('out.pdf')), cli.complained]).toEqual([0, '']);
  expect(existsSync(keptAt(pictures))).toBe(false);
  expect(await looked()).toMatchObject({ color: false });
  const kept = JSON.parse(readFileSync(keptAt(pictures), 'utf8')) as Kept;
  kept.facts.pages[0] = { ...kept.facts.pages[0]!, color: true };
  writeFileSync(keptAt(pictures), JSON.stringify(kept));
  expect(await looked()).toMatchObject({ color: true });
});

describe('what was found out of a document', () => {
  beforeAll(() =>
    cli.write('manual.pdf', Buffer.concat([readFileSync(cli.at('manual.pdf')), Buffer.from('% kept\n')])),
  );
  beforeEach(() => {
    for (const name of readdirSync(folder())) writeFileSync(join(folder(), name), 'broken');
  });

  let keptPath = '';
  const keptAnew = async (): Promise<object> => {
    const page = await firstPage();
    const paths = readdirSync(folder()).map((name) => join(folder(), name));
    keptPath = paths.find((path) => readFileSync(path, 'utf8') !== 'broken')!;
    return page;
  };
  const change = (write: (was: Kept) => void): void => {
    const was = JSON.parse(readFileSync(keptPath, 'utf8')) as Kept;
    write(was);
    writeFileSync(keptPath, JSON.stringify(was));
  };

  test('is what the next command goes by, for its user alone', async () => {
    const page = await keptAnew();
    expect(page).toHaveProperty('smallestText');
    expect(statSync(keptPath).mode & 0o777).toBe(0o600);
    change(({ facts: { pages } }) => (pages[0] = { ...pages[0]!, smallestText: 99 }));
    expect(await firstPage()).toMatchObject({ smallestText: 99 });
  });

  test('by another build is found out anew, and so is what cannot be read', async () => {
    const page = await keptAnew();
    change((was) => {
      was.build += 1;
      was.facts.pages[0] = { ...was.facts.pages[0]!, smallestText: 99 };
    });
    expect(await firstPage()).toEqual(page);
    writeFileSync(keptPath, '{');
    expect(await firstPage()).toEqual(page);
  });

  test('is not kept where there is no place for it, and nothing is missed', async () => {
    const place = process.env['XDG_CACHE_HOME']!;
    const page = await keptAnew();
    process.env['XDG_CACHE_HOME'] = cli.at('manual.pdf');
    expect(await firstPage()).toEqual(page);
    process.env['XDG_CACHE_HOME'] = place;
  });
});
