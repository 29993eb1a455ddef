import { unzipSync } from 'fflate';
import { batched } from './batches';

/** A file as it stands in a folder that was dropped. */
function file(place: string, content = ''): File {
  const name = place.split('/').at(-1)!;
  const made = new File([content], name);
  const bytes = new TextEncoder().encode(content);
  // What the tests' browser leaves out of files.
  Object.assign(made, { text: () => Promise.resolve(content), arrayBuffer: () => Promise.resolve(bytes.buffer) });
  Object.defineProperty(made, 'webkitRelativePath', { value: place });
  return made;
}

const read = (blob: File): Promise<Uint8Array> =>
  new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(new Uint8Array(reader.result as ArrayBuffer));
    reader.readAsArrayBuffer(blob);
  });

const pathsIn = async (blob: File): Promise<string[]> => Object.keys(unzipSync(await read(blob))).sort();

test('a page with what it shows is one document; what no page shows stays itself', async () => {
  const files = [
    file('site/a.pdf'),
    file('site/page.html', '<link rel=stylesheet href="s/p.css"><img src="pictures/a.png"><img src="gone.png">'),
    file('site/s/p.css', 'div{background:url(../pictures/b.png)}'),
    file('site/pictures/a.png'),
    file('site/pictures/b.png'),
    file('site/pictures/c.png'),
  ];
  const made = await batched(files, 'each');
  expect(made.map(({ name }) => name)).toEqual(['a.pdf', 'page.html', 'c.png']);
  expect(await pathsIn(made[1]!)).toEqual(['page.html', 'pictures/a.png', 'pictures/b.png', 's/p.css']);
});

test('two pages that show the same picture each have it with them', async () => {
  const made = await batched([file('a.md', '![x](p.png)'), file('b.md', '![x](p.png)'), file('p.png')], 'each');
  expect(made.map(({ name }) => name)).toEqual(['a.md', 'b.md']);
  expect([await pathsIn(made[0]!), await pathsIn(made[1]!)]).toEqual([
    ['a.md', 'p.png'],
    ['b.md', 'p.png'],
  ]);
});

test('pictures of one batch are one document in the place of the first, in the order of their names', async () => {
  const files = [file('a.pdf'), file('scan 10.png'), file('b.pdf'), file('scan 2.jpg'), file('scan 1.tif')];
  const made = await batched(files, 'together');
  expect(made.map(({ name }) => name)).toEqual(['a.pdf', 'scan 1.tif and 2 more', 'b.pdf']);
  expect(await pathsIn(made[1]!)).toEqual(['000001 scan 1.tif', '000002 scan 2.jpg', '000003 scan 10.png']);
});

test('one picture, one page and what shows nothing stay as they are', async () => {
  const files = [file('a.png'), file('b.html', '<p>x'), file('c.pdf')];
  expect(await batched(files, 'together')).toEqual(files);
  expect(await batched([files[0]!], 'together')).toEqual([files[0]]);
});
