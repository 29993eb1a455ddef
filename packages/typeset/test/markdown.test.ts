import spec from 'commonmark-spec';
import { navigationByQpdf, pageSizes, pageTexts, qpdfComplaints } from '../../pdf/test/poppler';
import { openBrowser } from '../src';
import { markdownBody } from '../src/flow/markdown';
import { readPage } from '../src/flow/page-tree';
import { browserForAll } from './lend';
import { letters } from './take';

const take = browserForAll();

const TEXT = `# Rehearsal plan

Dear all, *please* read **this**.

## To do

- [ ] Tune the harp
- [x] Order reeds

| Day | Hall |
| --- | --- |
| Mon | Town Hall |

## Where

Behind the hall.
`;

test('headings are the outline, tables and tasks are as they are meant', async () => {
  const { bytes, laid, remarks } = await take('plan.md', letters(TEXT));
  expect(qpdfComplaints(bytes)).toBe('');
  expect(laid).toMatchObject({ kind: 'markdown', form: {}, taken: { typeSize: 11 } });
  expect(remarks).toEqual([]);
  expect(navigationByQpdf(bytes).outline).toEqual([
    { title: 'Rehearsal plan', level: 1, page: 1 },
    { title: 'To do', level: 2, page: 1 },
    { title: 'Where', level: 2, page: 1 },
  ]);
  const [text] = pageTexts(bytes);
  expect(text).toMatch(/☐ Tune the harp\n\s*☑ Order reeds/);
  expect(text).toMatch(/Day +Hall\n\s*Mon +Town Hall/);
});

test('paper, orientation and type size are as asked', async () => {
  const long = letters(Array.from({ length: 60 }, (_, at) => `Paragraph ${at} of some words.`).join('\n\n'));
  const form = { paper: 'iso_a5_148x210mm', orientation: 'landscape', typeSize: 9 } as const;
  const { bytes } = await take('plan.md', long, form);
  const [first] = pageSizes(bytes);
  expect([first!.width, first!.height].map((points) => Math.round(points / 2.8346))).toEqual([210, 148]);
  const pages = async (typeSize: number): Promise<number> =>
    (await take('plan.md', long, { typeSize })).facts.pages.length;
  expect(await pages(16)).toBeGreaterThan(await pages(8));
});

test('a long line of code goes on below, and nothing of it is cut', async () => {
  const code = Array.from({ length: 40 }, (_, at) => `word${at}`).join(' + ');
  const { bytes } = await take('plan.md', letters(`\`\`\`\n${code};\nshort();\n\`\`\`\n`));
  expect(pageTexts(bytes)[0]!.replace(/\s+/g, ' ').trim()).toBe(`${code}; short();`);
});

test('a picture that is not with it is told', async () => {
  const { remarks } = await take('plan.md', letters('![plan](stage.png) and ![map](http://10.0.0.1/map.png)'));
  expect(remarks).toEqual(['Not with the file, and nothing is fetched for it: stage.png, http://10.0.0.1/map.png.']);
});

const tree = readPage('');

/** As browsers close what a text leaves open. */
function closed(html: string): string {
  tree.body.innerHTML = html;
  return tree.body.innerHTML;
}

/** Text in the order in which it is read; what is never shown is left out. */
function textOf(html: string): string {
  tree.body.innerHTML = html;
  for (const one of tree.body.querySelectorAll('script, style, title, template')) one.remove();
  // A picture that is not there is told by its words, or its title.
  for (const one of tree.body.querySelectorAll('img')) {
    const words = tree.createElement('span');
    words.textContent = one.getAttribute('alt') || one.getAttribute('title');
    one.after(words);
  }
  return bare(tree.body.textContent ?? '');
}

/** Without spaces, marks before items of a list, and letters of Kannada and Malayalam, which no font here has. */
const bare = (text: string): string => text.normalize('NFKC').replace(/[\s\u00ad•◦▪\u0c80-\u0d7f]+/g, '');

test('every example of CommonMark reads in its order', async () => {
  // An arrow stands for a tab in the specification.
  const examples = spec.tests.map(({ number, markdown, html }) => ({
    number,
    ours: closed(markdownBody(markdown.replaceAll('→', '\t'))),
    meant: textOf(html.replaceAll('→', '\t')),
  }));
  expect(examples).toHaveLength(652);
  const sections = examples.map(({ ours }) => `<section>${ours}</section>`);
  const browser = await openBrowser();
  try {
    const style =
      'section{break-before:page;min-height:1px;contain:paint}ol,ul{list-style:none}*{font:10pt Carlito,sans-serif}textarea{field-sizing:content}';
    const html = `<!doctype html><meta charset="utf-8"><style>${style}</style>${sections.join('')}`;
    const { bytes } = await browser.lay({ kind: 'page', document: { html, width: 640 } });
    const pages = pageTexts(bytes).map(bare);
    expect(pages).toHaveLength(examples.length);
    expect(
      examples.flatMap(({ meant, number }, at) => (pages[at] === meant ? [] : [[number, pages[at], meant]])),
    ).toEqual([]);
  } finally {
    await browser.close();
  }
});
