import { atCommandLine } from './at-command-line';

/** What of a ticket is refused at the command line. */

const cli = atCommandLine();

const DOCUMENT = { file: 'manual.pdf', pages: '7-14' };

describe('what cannot be is told in one clear line: the file, the place and the repair', () => {
  const grid = (settings: object) => ({ layout: { kind: 'grid', ...settings } });
  test.each<[string, object, string]>([
    ['an unknown field', { colour: 'auto' }, 'the ticket: unknown field "colour"; remove it or correct its name'],
    [
      'an unknown field within',
      { paper: { sise: 'a4' } },
      'paper: unknown field "sise"; remove it or correct its name',
    ],
    ['a wrong type', { copies: '3' }, 'copies: wrong type; write a value of type integer'],
    ['no copies', { copies: 0 }, 'copies: out of range; write a number >= 1'],
    ['half a copy', { copies: 1.5 }, 'copies: wrong type; write a value of type integer'],
    [
      'a part without its height',
      { routes: [{ pages: '7', part: { left: 1, top: 2, width: 3 } }] },
      'routes[0].part: "height" is missing; add it',
    ],
    [
      'a part off the page',
      { routes: [{ pages: '7', part: { left: -1, top: 2, width: 3, height: 4 } }] },
      'routes[0].part.left: out of range; write a number >= 0',
    ],
    [
      'no such part',
      { routes: [{ pages: '7', part: 'half' }] },
      'routes[0].part: not one of the possible values; write "whole", "content"',
    ],
    ['9 rows', grid({ columns: 2, rows: 9 }), 'layout.rows: out of range; write a number <= 8'],
    ['rows without columns', grid({ rows: 2 }), 'layout.columns: rows are given without columns; give both or neither'],
    [
      '5 pages a side',
      grid({ pagesPerSide: 5 }),
      'layout.pagesPerSide: not one of the possible values; write 1, 2, 4, 6, 8, 9, 16',
    ],
    ['0 percent', { scale: { mode: 'percent', percent: 0 } }, 'scale.percent: out of range; write a number > 0'],
    [
      'a kind of layout nobody knows',
      { layout: { kind: 'spiral' } },
      'layout: "spiral" is no known kind; write the kind "grid", "booklet" or "tiles"',
    ],
    [
      'a booklet with rows',
      { layout: { kind: 'booklet', rows: 2 } },
      'layout: unknown field "rows"; remove it or correct its name',
    ],
    [
      'a size that is none',
      { paper: { size: 'foolscap' } },
      'paper.size: "foolscap" is not a PWG 5101.1 size name; write "as-page" or one like "iso_a4_210x297mm"',
    ],
    [
      'a route that does nothing',
      { routes: [{ pages: '1' }] },
      'routes[0]: a route must change something; give it rotate, part, sides, layout, paper, scale, margin, color, tray, outputBin or ownSheet',
    ],
    [
      'a route of a document that is not there',
      { routes: [{ pages: '1', document: 2, tray: 'tray-1' }] },
      'routes[0].document: document 2 is not in the ticket, which has 1; write a number from 1 to 1',
    ],
    ['a layout without its kind', { layout: { pagesPerSide: 2 } }, 'layout: "kind" is missing; add it'],
    ['another version', { version: 2 }, 'version: another value is needed; write 1'],
    ['no documents', { documents: [] }, 'documents: there are too few; give at least 1'],
    [
      'a page that is not there',
      { documents: [{ file: 'manual.pdf', pages: '18-30' }] },
      'documents[0].pages, character 4: page 30 is not in manual.pdf, whose last page is 20; expected a page from 1 to 20',
    ],
    [
      'a heading that is not there',
      { documents: [{ file: 'manual.pdf', pages: '"Nowhere"' }] },
      'documents[0].pages, character 1: "Nowhere" is not a heading of manual.pdf; expected the title of a heading',
    ],
    [
      'a section that is not there',
      { documents: [{ file: 'manual.pdf', pages: '99:' }] },
      'documents[0].pages, character 1: section 99 is not in manual.pdf, which has 3; expected a section from 1 to 3',
    ],
    [
      'a gutter wider than the paper',
      { ...grid({ columns: 8, rows: 8, gutter: 100 }) },
      'layout.gutter: a gutter of 100 mm leaves nothing of A4; write a narrower gutter or fewer pages a side',
    ],
    [
      'margins that meet',
      { paper: { size: 'iso_a7_74x105mm' }, margin: 40 },
      'margin: a margin of 40 mm leaves nothing of A7; write a smaller margin or take larger paper',
    ],
  ])('%s', async (_what, settings, message) => {
    expect(await cli.run({ version: 1, documents: [DOCUMENT], ...settings })).toBe(2);
    expect(cli.complained).toMatch(`${cli.ticket}: ${message}`);
    expect(cli.complained.trim().split('\n')).toHaveLength(1);
    expect(cli.complained).toContain('; ');
    expect(cli.printed).toBe('');
  });
});
