import type { Plan } from '@foglio/core';
import { mailFile } from '../../../packages/typeset/test/make-mail';
import { p, r, relation, wordFile } from '../../../packages/typeset/test/make-word';
import { rowsBook, workbook } from '../../../packages/typeset/test/make-workbook';

/** @param told what is said beside the plan */
type PlanOf = (documents: object[], told?: string) => Promise<Plan>;
type Write = (name: string, content: string | Uint8Array) => void;

/** One line a field of a form: what it does to a document that is otherwise as it says itself. */
export function formFields(planOf: PlanOf, write: Write): Record<string, () => Promise<void>> {
  const sheets = async (name: string, content: string | Uint8Array, form: object): Promise<Plan['sheets']> => {
    write(name, content);
    return (await planOf([{ file: name, form }])).sheets;
  };
  const count = async (name: string, content: string | Uint8Array, form: object): Promise<number> =>
    (await sheets(name, content, form)).length;
  const paperOf = async (content: string, form: object): Promise<string> =>
    (await sheets('a.txt', content, form))[0]!.paper.size;
  const lines = Array.from({ length: 130 }, (_, at) => `line ${at}`).join('\n');
  const wide = Array.from({ length: 70 }, (_, row) => Array.from({ length: 13 }, (__, column) => row * 100 + column));
  const wayOf = async (form: object): Promise<string> => (await sheets('a.txt', lines, form))[0]!.front.orientation;
  /** How much of the first page holds anything. */
  const part = async (content: Uint8Array, form: object): Promise<number> => {
    write('book.xlsx', content);
    const plan = await planOf([{ file: 'book.xlsx', form, part: 'content' }]);
    const [, , width, height] = plan.sheets[0]!.front.cells[0]!.source!;
    return width * height;
  };
  return {
    'documents.form.paper': async () => {
      expect(await paperOf(lines, {})).toBe('iso_a4_210x297mm');
      expect(await paperOf(lines, { paper: 'iso_a5_148x210mm' })).toBe('iso_a5_148x210mm');
    },
    'documents.form.orientation': async () => {
      expect([await wayOf({}), await wayOf({ orientation: 'landscape' })]).toEqual(['portrait', 'landscape']);
    },
    'documents.form.sheets': async () => {
      const book = await workbook((one) => ['A', 'B', 'C'].forEach((name) => one.addWorksheet(name).addRow([name])));
      expect(await count('book.xlsx', book, {})).toBe(3);
      expect(await count('book.xlsx', book, { sheets: ['C', 'A'] })).toBe(2);
    },
    'documents.form.fit': async () => {
      const book = await rowsBook(wide);
      const counts = [];
      for (const fit of ['actual', 'readable', 'width', 'page']) counts.push(await count('book.xlsx', book, { fit }));
      expect(counts).toEqual([4, 1, 2, 1]);
    },
    'documents.form.gridLines': async () => {
      const book = await rowsBook([['a', null, 'b']]);
      expect(await part(book, { gridLines: true })).toBeGreaterThan(await part(book, {}));
    },
    'documents.form.headings': async () => {
      const book = await rowsBook([['a']]);
      expect(await part(book, { headings: true })).toBeGreaterThan(await part(book, {}));
    },
    'documents.form.wholeSheet': async () => {
      const book = await rowsBook(wide, ({ pageSetup }) => (pageSetup.printArea = 'A1:B2'));
      expect([await count('book.xlsx', book, {}), await count('book.xlsx', book, { wholeSheet: true })]).toEqual([
        1, 4,
      ]);
    },
    'documents.form.hidden': async () => {
      const book = await rowsBook(wide, (sheet) => {
        for (let row = 2; row <= 70; row += 1) sheet.getRow(row).hidden = true;
      });
      expect([await count('book.xlsx', book, {}), await count('book.xlsx', book, { hidden: true })]).toEqual([2, 4]);
    },
    'documents.form.changes': async () => {
      const gone = `<w:p><w:pPr><w:rPr><w:del w:id="1"/></w:rPr></w:pPr><w:del w:id="1">${r('gone')}</w:del></w:p>`;
      const word = wordFile({ body: gone.repeat(60) + p('kept') });
      write('a.docx', word);
      const over = await planOf([{ file: 'a.docx' }], '60 tracked changes are printed as if taken over.\n');
      expect([over.sheets.length, await count('a.docx', word, { changes: true })]).toEqual([1, 2]);
    },
    'documents.form.comments': async () => {
      const word = wordFile({
        body: `<w:p>${r('said')}<w:r><w:commentReference w:id="1"/></w:r></w:p>`,
        parts: { 'comments.xml': `<w:comment w:id="1" w:author="Ada">${p('line').repeat(70)}</w:comment>` },
        relations: relation('c', 'comments', 'comments.xml'),
      });
      write('a.docx', word);
      const without = await planOf([{ file: 'a.docx' }], 'A comment is not printed.\n');
      expect([without.sheets.length, await count('a.docx', word, { comments: true })]).toEqual([1, 2]);
    },
    'documents.form.attachment': async () => {
      const rows = Array.from({ length: 90 }, (_, at) => `player ${at},${at}`).join('\n');
      write('a.eml', mailFile({ plain: 'x' }, [{ type: 'text/csv', name: 'players.csv', bytes: Buffer.from(rows) }]));
      const attached = { file: 'a.eml', form: { attachment: 'players.csv' } };
      const { sheets: all } = await planOf([{ file: 'a.eml' }, attached]);
      expect([all.length, (await planOf([attached])).sheets.length]).toEqual([3, 2]);
    },
    'documents.form.delimiter': async () => {
      const table = Array.from({ length: 40 }, (_, at) => Array.from({ length: 60 }, () => at).join('|')).join('\n');
      expect([
        await count('a.csv', table, { delimiter: '|' }),
        await count('a.csv', table, { delimiter: ';' }),
      ]).toEqual([2, 4]);
    },
    'documents.form.encoding': async () => {
      // Two bytes a letter: read as one each, lines are twice as long.
      const text = `${'é'.repeat(70)}\n`.repeat(60);
      expect([await count('a.txt', text, {}), await count('a.txt', text, { encoding: 'windows-1252' })]).toEqual([
        1, 2,
      ]);
    },
    'documents.form.header': async () => {
      const table = Array.from({ length: 108 }, (_, at) => `name ${at},${at}`).join('\n');
      const counts = [await count('a.csv', table, { header: false }), await count('a.csv', table, { header: true })];
      expect(counts[1]).toBeGreaterThan(counts[0]!);
    },
    'documents.form.style': async () => {
      const lines = '<p><a href="/">Elsewhere</a></p>'.repeat(60);
      const page = `<!doctype html><nav>${lines}</nav><article><h1>News</h1>${'<p>Of the orchestra, and of its halls. </p>'.repeat(20)}</article>`;
      expect([await count('a.html', page, {}), await count('a.html', page, { style: 'reading' })]).toEqual([3, 1]);
    },
    'documents.form.pictures': async () => {
      const drawn = `data:image/svg+xml,${encodeURIComponent('<svg xmlns="http://www.w3.org/2000/svg" width="300" height="1500"/>')}`;
      const page = `<!doctype html><p>A picture</p><img src="${drawn}">`;
      expect([await count('a.html', page, {}), await count('a.html', page, { pictures: false })]).toEqual([3, 1]);
    },
    'documents.form.links': async () => {
      const page = `<!doctype html>${Array.from({ length: 90 }, (_, at) => `<a href="https://hall.example/${at}">${at}</a> `).join('')}`;
      expect([await count('a.html', page, {}), await count('a.html', page, { links: true })]).toEqual([1, 2]);
    },
    'documents.form.backgrounds': async () => {
      write('a.html', '<!doctype html><body style="background:#0000ff"><p>blue');
      const size = async (form: object): Promise<number> => {
        const plan = await planOf([{ file: 'a.html', form, part: 'content' }]);
        const [, , width, height] = plan.sheets[0]!.front.cells[0]!.source!;
        return width * height;
      };
      expect(await size({ backgrounds: true })).toBeGreaterThan(10 * (await size({})));
    },
    'documents.form.typeSize': async () =>
      expect([await count('a.txt', lines, {}), await count('a.txt', lines, { typeSize: 20 })]).toEqual([3, 5]),
    'documents.form.columns': async () => expect(await count('a.txt', lines, { columns: 3 })).toBe(1),
  };
}
