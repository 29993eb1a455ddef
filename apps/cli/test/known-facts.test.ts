import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PdfFacts } from '@foglio/pdf';
import { digestOf } from '../src/known-facts';
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
  const path = join(folder(), `${digestOf(readFileSync(cli.at('manual.pdf')))}.json`);
  const { pages } = (JSON.parse(readFileSync(path, 'utf8')) as Kept).facts;
  expect(pages.some(({ content }) => content !== undefined)).toBe(looks);
});

describe('what was found out of a document', () => {
  beforeAll(() =>
    cli.write('manual.pdf', Buffer.concat([readFileSync(cli.at('manual.pdf')), Buffer.from('% kept\n')])),
  );
  beforeEach(() => {
    for (const name of readdirSync(folder())) writeFileSync(join(folder(), name), 'broken');
  });

  let keptAt = '';
  const keptAnew = async (): Promise<object> => {
    const page = await firstPage();
    const paths = readdirSync(folder()).map((name) => join(folder(), name));
    keptAt = paths.find((path) => readFileSync(path, 'utf8') !== 'broken')!;
    return page;
  };
  const change = (write: (was: Kept) => void): void => {
    const was = JSON.parse(readFileSync(keptAt, 'utf8')) as Kept;
    write(was);
    writeFileSync(keptAt, JSON.stringify(was));
  };

  test('is what the next command goes by, for its user alone', async () => {
    const page = await keptAnew();
    expect(page).toHaveProperty('smallestText');
    expect(statSync(keptAt).mode & 0o777).toBe(0o600);
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
    writeFileSync(keptAt, '{');
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
