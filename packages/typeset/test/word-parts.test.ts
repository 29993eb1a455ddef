import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { pageTexts, qpdfComplaints, wordPlaces } from '../../pdf/test/poppler';
import { browserForAll } from './lend';
import { A4, field, p, r, relation, wordFile, type HandWritten } from './make-word';

/** Text documents by hand, for what libraries do not write, as poppler reads what is made of them. */
const take = browserForAll();

const section = `<w:sectPr>${A4}</w:sectPr>`;

const laidOut = (word: HandWritten, form = {}) =>
  take('a.docx', wordFile({ ...word, body: word.body + section }), form);

const textOf = async (word: HandWritten, form = {}): Promise<string> =>
  pageTexts((await laidOut(word, form)).bytes)
    .join('\f')
    .replace(/[^\S\f]+/g, ' ')
    .trim();

describe('tracked changes', () => {
  const who = 'w:id="1" w:author="Ada Reed" w:date="2026-05-01T10:00:00Z"';
  const body =
    `<w:p>${r('kept ')}<w:ins ${who}>${r('added ')}</w:ins><w:del ${who}><w:r><w:delText>gone </w:delText></w:r></w:del>` +
    `<w:moveFrom ${who}>${r('old place ')}</w:moveFrom><w:moveTo ${who}>${r('new place')}</w:moveTo></w:p>` +
    `<w:p><w:pPr><w:rPr><w:del ${who}/></w:rPr></w:pPr>${r('one ')}</w:p>${p('paragraph')}` +
    `<w:tbl><w:tr><w:trPr><w:del ${who}/></w:trPr><w:tc>${p('row gone')}</w:tc></w:tr><w:tr><w:tc>${p('row kept')}</w:tc></w:tr></w:tbl>`;

  test('are taken over, and that is said', async () => {
    const { bytes, remarks } = await laidOut({ body });
    const text = pageTexts(bytes)[0]!.replace(/\s+/g, ' ').trim();
    expect(text).toBe('kept added new place one paragraph row kept');
    expect(remarks).toEqual(['5 tracked changes are printed as if taken over.']);
  });

  test('are marked where that is asked for', async () => {
    const { bytes, remarks, laid } = await laidOut({ body }, { changes: true });
    const text = pageTexts(bytes)[0]!.replace(/\s+/g, ' ').trim();
    expect(text).toBe('kept added gone old place new place one paragraph row gone row kept');
    expect(remarks).toEqual([]);
    expect(laid?.form).toEqual({ changes: true });
  });
});

describe('what stands in changes is never lost', () => {
  const gone = '<w:rPr><w:del w:id="1"/></w:rPr>';
  const footnotes = {
    parts: { 'footnotes.xml': `<w:footnote w:id="1">${p('the note')}</w:footnote>` },
    relations: relation('f', 'footnotes', 'footnotes.xml'),
  };

  test('a paragraph whose end was deleted takes its notes, its boxes and its breaks along', async () => {
    const box = `<w:r><w:pict><v:shape><v:textbox><w:txbxContent>${p('boxed')}</w:txbxContent></v:textbox></v:shape></w:pict></w:r>`;
    const body = `<w:p><w:pPr>${gone}</w:pPr>${r('one')}<w:r><w:footnoteReference w:id="1"/></w:r>${box}<w:r><w:br w:type="page"/></w:r>${r('two ')}</w:p>${p('three')}`;
    expect(await textOf({ body, ...footnotes })).toBe('one1 1the note \ftwo three boxed');
  });

  test('one that is the last of its cell, or of a section, stands all the same', async () => {
    const last = `<w:p><w:pPr>${gone}</w:pPr>${r('kept')}</w:p>`;
    const ending = `<w:p><w:pPr>${gone}${section}</w:pPr>${r('before')}</w:p>`;
    const body = `<w:tbl><w:tr><w:tc>${last}</w:tc></w:tr></w:tbl>${ending}${p('after')}`;
    expect(await textOf({ body })).toBe('kept before \fafter');
  });

  test('a page that ends within an addition takes nothing with it, where changes are marked', async () => {
    const body = `<w:p>${r('one ')}<w:ins w:id="1">${r('two ')}<w:r><w:br w:type="page"/></w:r>${r('three')}</w:ins>${r(' four')}</w:p>`;
    expect(await textOf({ body }, { changes: true })).toBe('one two \fthree four');
  });
});

test('of sections that share a page the notes stand at their ends', async () => {
  const part = (word: string, id: number, ends: boolean): string =>
    Array.from({ length: 30 }, (_, at) => p(`${word}${at}`)).join('') +
    `<w:p>${ends ? `<w:pPr><w:sectPr>${A4}</w:sectPr></w:pPr>` : ''}${r(`${word}last`)}<w:r><w:footnoteReference w:id="${id}"/></w:r></w:p>`;
  const bytes = wordFile({
    body: `${part('a', 1, true)}${part('b', 2, false)}<w:sectPr><w:type w:val="continuous"/>${A4}</w:sectPr>`,
    parts: { 'footnotes.xml': [1, 2].map((id) => `<w:footnote w:id="${id}">${p(`note${id}`)}</w:footnote>`).join('') },
    relations: relation('f', 'footnotes', 'footnotes.xml'),
  });
  const texts = pageTexts((await take('a.docx', bytes)).bytes);
  expect(texts).toHaveLength(2);
  expect(texts[0]).toMatch(/alast1[\s\S]*note1[\s\S]*b0/);
  expect(texts[1]).toMatch(/blast2[\s\S]*note2/);
});

describe('comments', () => {
  const word: HandWritten = {
    body: `<w:p><w:commentRangeStart w:id="7"/>${r('said')}<w:commentRangeEnd w:id="7"/><w:r><w:commentReference w:id="7"/></w:r></w:p>`,
    parts: { 'comments.xml': `<w:comment w:id="7" w:author="Bo Lind">${p('is that so?')}</w:comment>` },
    relations: relation('c', 'comments', 'comments.xml'),
  };

  test('are not printed, and that is said', async () => {
    const { bytes, remarks } = await laidOut(word);
    expect(pageTexts(bytes).join('').trim()).toBe('said');
    expect(remarks).toEqual(['A comment is not printed.']);
  });

  test('stand at the end where that is asked for, with who wrote them', async () => {
    expect(await textOf(word, { comments: true })).toBe('said[1] Comments [1] Bo Lind is that so?');
  });
});

test('what is around a text is no part of it: content controls, links, smart tags, custom elements, fields in one', async () => {
  const control = (inside: string): string => `<w:sdt><w:sdtPr/><w:sdtContent>${inside}</w:sdtContent></w:sdt>`;
  const body =
    control(p('one')) +
    `<w:p>${control(r('two '))}<w:hyperlink r:id="x">${control(r('three '))}${field('REF a', 'four ')}</w:hyperlink>` +
    `<w:smartTag><w:customXml>${r('five ')}</w:customXml></w:smartTag><w:fldSimple w:instr="AUTHOR">${r('six')}</w:fldSimple></w:p>` +
    `<w:tbl>${control(`<w:tr>${control(`<w:tc>${control(p('seven'))}</w:tc>`)}</w:tr>`)}</w:tbl>` +
    `<w:customXml>${p('eight')}</w:customXml><w:ins w:id="1">${p('nine')}</w:ins>`;
  expect(await textOf({ body })).toBe('one two three four five six seven eight nine');
});

test('text boxes are printed after their paragraph, in either form, and told', async () => {
  const box = (inside: string): string =>
    `<w:r><mc:AlternateContent><mc:Choice Requires="wps"><w:drawing><wp:anchor><wp:extent cx="9" cy="9"/><a:graphic><a:graphicData uri="x">` +
    `<wps:wsp><wps:txbx><w:txbxContent>${inside}</w:txbxContent></wps:txbx></wps:wsp></a:graphicData></a:graphic></wp:anchor></w:drawing></mc:Choice>` +
    `<mc:Fallback><w:pict><v:shape><v:textbox><w:txbxContent>${inside}</w:txbxContent></v:textbox></v:shape></w:pict></mc:Fallback></mc:AlternateContent></w:r>`;
  const old = `<w:r><w:pict><v:shape><v:textbox><w:txbxContent>${p('old box')}</w:txbxContent></v:textbox></v:shape></w:pict></w:r>`;
  const { bytes, remarks } = await laidOut({
    body: `<w:p>${r('before')}${box(p('new box'))}${old}</w:p>${p('after')}`,
  });
  expect(pageTexts(bytes).join('').replace(/\s+/g, ' ').trim()).toBe('before new box old box after');
  expect(remarks).toEqual(['2 text boxes are printed after the paragraphs they belong to.']);
});

test('fields show the pages as they are, and not as they once were', async () => {
  const body =
    `<w:p><w:pPr><w:tabs><w:tab w:val="right" w:leader="dot" w:pos="9026"/></w:tabs></w:pPr>${r('contents')}<w:r><w:tab/></w:r>${field(' PAGEREF target \\h ', '99')}</w:p>` +
    `<w:p>${r('on ')}${field('PAGE', '98')}${r(' of ')}<w:fldSimple w:instr=" NUMPAGES ">${r('97')}</w:fldSimple></w:p>` +
    `${p('two', '<w:pageBreakBefore/>')}<w:p><w:pPr><w:pageBreakBefore/></w:pPr><w:bookmarkStart w:id="1" w:name="target"/>${r('three')}<w:bookmarkEnd w:id="1"/></w:p>`;
  expect(await textOf({ body })).toMatch(/^contents[ .]+3 on 1 of 3 \f?two \f?three$/);
});

test('what a field is told, and what it shows within another, is not printed', async () => {
  const nested = `<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText>IF </w:instrText></w:r>${field('PAGE', '5')}<w:r><w:instrText> = 1 "a" "b"</w:instrText></w:r><w:r><w:fldChar w:fldCharType="separate"/></w:r>${r('shown')}<w:r><w:fldChar w:fldCharType="end"/></w:r>`;
  expect(await textOf({ body: `<w:p>${r('it ')}${nested}${r(' all')}</w:p>` })).toBe('it shown all');
});

test('letters of their own kind: hyphens that hold, soft ones, symbols, breaks', async () => {
  const body = `<w:p><w:r><w:t>A</w:t><w:noBreakHyphen/><w:t>4</w:t><w:br/><w:sym w:font="Wingdings" w:char="F0FC"/><w:t xml:space="preserve"> done</w:t></w:r>${r('\uf0a7', '<w:rFonts w:ascii="Wingdings"/>')}</w:p>`;
  expect(await textOf({ body })).toMatch(/^A[‑-]4 ✓ done▪$/);
});

test('endnotes stand at the end, notes without a number of their own are given it', async () => {
  const word: HandWritten = {
    body: `<w:p>${r('a')}<w:r><w:endnoteReference w:id="2"/></w:r></w:p><w:p>${r('b')}<w:r><w:endnoteReference w:id="3"/></w:r></w:p>${p('last')}`,
    parts: {
      'endnotes.xml': `<w:endnote w:id="3">${p('of b')}</w:endnote><w:endnote w:id="2">${p('of a')}</w:endnote>`,
    },
    relations: relation('e', 'endnotes', 'endnotes.xml'),
  };
  expect(await textOf(word)).toMatch(/^ai bii last iof a iiof b$/);
});

test('lists are counted on where they are of one kind, and anew where they say so; numbers of styles too', async () => {
  const item = (text: string, num: number, level = 0): string =>
    p(text, `<w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${num}"/></w:numPr>`);
  const level = (at: number, format: string, text: string, start = 1): string =>
    `<w:lvl w:ilvl="${at}"><w:start w:val="${start}"/><w:numFmt w:val="${format}"/><w:lvlText w:val="${text}"/><w:suff w:val="space"/></w:lvl>`;
  const word: HandWritten = {
    numbering:
      `<w:abstractNum w:abstractNumId="0">${level(0, 'upperRoman', '%1.')}${level(1, 'decimal', '%1.%2')}</w:abstractNum>` +
      `<w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="0"/></w:num>` +
      '<w:num w:numId="3"><w:abstractNumId w:val="0"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="5"/></w:lvlOverride></w:num>',
    styles:
      '<w:style w:type="paragraph" w:styleId="Base"><w:name w:val="base"/><w:pPr><w:numPr><w:numId w:val="1"/></w:numPr></w:pPr></w:style>' +
      '<w:style w:type="paragraph" w:styleId="Point"><w:name w:val="point"/><w:basedOn w:val="Base"/></w:style>',
    body:
      item('a', 1) +
      item('b', 1, 1) +
      item('c', 1, 1) +
      item('d', 2) +
      item('e', 2, 1) +
      item('f', 3) +
      item('g', 3) +
      p('h', '<w:pStyle w:val="Point"/>') +
      p('plain', '<w:pStyle w:val="Point"/><w:numPr><w:numId w:val="0"/></w:numPr>'),
  };
  expect(await textOf(word)).toBe('I. a I.1 b I.2 c II. d II.1 e V. f VI. g VII. h plain');
});

test('the strict form is read as the other is', async () => {
  const bytes = wordFile({
    body: p('strict text') + section,
    namespace: 'http://purl.oclc.org/ooxml/wordprocessingml/main',
  });
  expect(pageTexts((await take('a.docx', bytes)).bytes)[0]).toContain('strict text');
});

test('a heading stays with the text below it', async () => {
  const body =
    Array.from({ length: 46 }, (_, at) =>
      p(`line${at}`, '<w:spacing w:line="300" w:lineRule="exact" w:after="0"/>'),
    ).join('') +
    p('heading', '<w:keepNext/><w:spacing w:line="300" w:lineRule="exact" w:after="0"/>') +
    p('below');
  const texts = pageTexts((await laidOut({ body })).bytes);
  // 698 points of text, 15 a line: the heading alone would be the last one of the first page.
  expect(texts).toHaveLength(2);
  expect(texts[1]!.trim()).toMatch(/^heading\s+below$/);
});

test('lines are as high as their font and their spacing have them', async () => {
  const style = (line: string): string => `<w:spacing ${line} w:after="0" w:before="0"/>`;
  const rows = (line: string): string => ['a', 'b'].map((word) => p(word + line.length, style(line))).join('');
  const [exact, double] = ['w:line="400" w:lineRule="exact"', 'w:line="480" w:lineRule="auto" '];
  const styles =
    '<w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Arial"/><w:sz w:val="20"/></w:rPr></w:rPrDefault></w:docDefaults>';
  const words = wordPlaces((await laidOut({ body: rows(exact) + rows(double), styles })).bytes)[0]!;
  const [first, second, third, fourth] = words.map(({ y }) => y);
  expect(first! - second!).toBeCloseTo(20, 0);
  // Ten points of Arial are 11.5 high by its own tables (hhea of Arimo, which is as high).
  expect(third! - fourth!).toBeCloseTo(23, 0);
});

test.each<[string, HandWritten, string]>([
  [
    'a chart',
    {
      body: '<w:p><w:r><w:drawing><wp:inline><wp:extent cx="9" cy="9"/><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/chart"/></a:graphic></wp:inline></w:drawing></w:r></w:p>',
    },
    'A chart is not printed.',
  ],
  [
    'a picture elsewhere',
    {
      body: '<w:p><w:r><w:pict><v:shape style="width:9pt;height:9pt"><v:imagedata r:id="x"/></v:shape></w:pict></w:r></w:p>',
      relations: relation('x', 'image', 'http://intranet.invalid/x.png', 'TargetMode="External"'),
    },
    'A picture is not with the file, and is not fetched.',
  ],
  [
    'a picture of its own program',
    {
      body: '<w:p><w:r><w:pict><v:shape style="width:9pt;height:9pt"><v:imagedata r:id="x"/></v:shape></w:pict></w:r></w:p>',
      relations: relation('x', 'image', 'media/x.emf'),
      parts: { 'media/x.emf': new Uint8Array([1]) },
    },
    'A picture of a form that only its own program draws is not printed.',
  ],
  [
    'a drawn shape',
    { body: '<w:p><w:r><w:pict><v:rect style="width:9pt;height:9pt"/></w:pict></w:r></w:p>' },
    'A drawn shape is not printed.',
  ],
  ['another document', { body: '<w:altChunk r:id="x"/>' }, 'Another document within it is not printed.'],
  ['macros', { body: p('x'), parts: { 'vbaProject.bin': new Uint8Array([1]) } }, 'It holds macros; they were not run.'],
])('%s is told', async (_what, word, told) => {
  const { bytes, remarks } = await laidOut(word);
  expect(qpdfComplaints(bytes)).toBe('');
  expect(remarks).toEqual([told]);
});

test('boxes of a form, ticked and not', async () => {
  const box = (said: string): string =>
    `<w:r><w:fldChar w:fldCharType="begin"><w:ffData><w:checkBox>${said}</w:checkBox></w:ffData></w:fldChar></w:r><w:r><w:instrText> FORMCHECKBOX </w:instrText></w:r><w:r><w:fldChar w:fldCharType="end"/></w:r>`;
  const body = `<w:p>${box('<w:default w:val="0"/>')}${r(' no ')}${box('<w:default w:val="0"/><w:checked/>')}${r(' yes')}</w:p>`;
  expect(await textOf({ body })).toBe('☐ no ☒ yes');
});

test('fonts that are not here are named, unless others are as wide', async () => {
  const body = `<w:p>${r('a', '<w:rFonts w:ascii="Garamond"/>')}</w:p><w:p>${r('b', '<w:rFonts w:ascii="Calibri"/>')}</w:p>`;
  expect((await laidOut({ body })).remarks).toEqual(['Not here, and others stand in their place: Garamond.']);
});

describe('hostile files', () => {
  test('entities of a document grow nothing', async () => {
    const bytes = zipSync({
      '_rels/.rels': strToU8(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${relation('m', 'officeDocument', 'word/document.xml')}</Relationships>`,
      ),
      'word/document.xml': strToU8(
        '<!DOCTYPE d [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>&b;</w:t></w:r></w:p></w:body></w:document>',
      ),
    });
    await expect(take('a.docx', bytes)).rejects.toThrow(/word\/document\.xml cannot be read/);
  });

  test.each<[string, Uint8Array, RegExp]>([
    [
      'that stand in one another too deep',
      wordFile({ body: '<w:sdt><w:sdtContent>'.repeat(5000) + '</w:sdtContent></w:sdt>'.repeat(5000) }),
      /too deep/,
    ],
    ['without their text', zipSync({ 'word/document.xml': strToU8('x') }), /its text is missing/],
    ['cut off', wordFile({ body: p('x') }).subarray(0, -40), /not a whole ZIP file|Foglio takes/],
  ])('%s are refused', async (_what, bytes, told) => {
    await expect(take('a.docx', bytes)).rejects.toThrow(told);
  });

  test('a link to a script or a file leads nowhere, and nothing runs', async () => {
    const body = `<w:p><w:hyperlink r:id="x">${r('press here')}</w:hyperlink></w:p><w:p>${r('&lt;script&gt;document.body.textContent=1&lt;/script&gt;')}</w:p>`;
    const { bytes } = await laidOut({
      body,
      relations: relation('x', 'hyperlink', 'javascript:alert(1)', 'TargetMode="External"'),
    });
    expect(pageTexts(bytes).join('')).toContain('<script>document.body.textContent=1</script>');
    expect(Buffer.from(bytes).toString('latin1')).not.toContain('/URI');
  });
});

/** A paragraph, a table, a break or a note, each with words of its own. */
const anyBlock = fc.record({
  kind: fc.constantFrom('plain', 'long', 'note', 'list', 'table', 'break', 'split', 'keep', 'joined'),
  size: fc.integer({ min: 1, max: 12 }),
});

test('whatever a document is made of, no word of it is lost or printed twice, and notes stand with their lines', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyBlock, { minLength: 1, maxLength: 30 }), async (blocks) => {
      let words = 0;
      const notes: string[] = [];
      const together: (readonly [ofNote: number, ofText: number])[] = [];
      const some = (count: number): string => Array.from({ length: count }, () => `w${(words += 1)}w`).join(' ');
      const body = blocks
        .map(({ kind, size }) => {
          switch (kind) {
            case 'plain':
              return p(some(size));
            case 'long':
              return p(some(size * 40), '<w:jc w:val="both"/>');
            case 'keep':
              return p(some(size), '<w:keepNext/>');
            case 'list':
              return p(some(size), '<w:ind w:left="720" w:hanging="360"/>');
            case 'note': {
              notes.push(`<w:footnote w:id="${notes.length + 1}">${p(some(size * 8))}</w:footnote>`);
              const ofNote = words;
              const before = some(size * 10);
              together.push([ofNote, words]);
              return `<w:p>${r(`${before} `)}<w:r><w:footnoteReference w:id="${notes.length}"/></w:r>${r(` ${some(3)}`)}</w:p>`;
            }
            case 'table':
              return `<w:tbl>${Array.from({ length: size * 3 }, () => `<w:tr><w:tc>${p(some(2))}</w:tc><w:tc>${p(some(1))}</w:tc></w:tr>`).join('')}</w:tbl>`;
            case 'break':
              return '<w:p><w:r><w:br w:type="page"/></w:r></w:p>';
            case 'joined':
              return p(some(size), '<w:rPr><w:del w:id="1"/></w:rPr>');
            case 'split':
              return `<w:p>${r(some(2))}<w:r><w:br w:type="page"/></w:r>${r(some(2))}</w:p>`;
          }
        })
        .join('');
      const { bytes } = await laidOut({
        body,
        parts: { 'footnotes.xml': notes.join('') },
        relations: relation('f', 'footnotes', 'footnotes.xml'),
      });
      const pages = pageTexts(bytes).map((text) =>
        (text.match(/w\d+w/g) ?? []).map((word) => Number(word.slice(1, -1))),
      );
      expect(pages.flat().sort((one, other) => one - other)).toEqual(Array.from({ length: words }, (_, at) => at + 1));
      // A note ends on the page on which the line stands that refers to it.
      const pageOf = (word: number): number => pages.findIndex((page) => page.includes(word));
      expect(together.filter(([ofNote, ofText]) => pageOf(ofNote) !== pageOf(ofText))).toEqual([]);
    }),
    { numRuns: 12 },
  );
});
