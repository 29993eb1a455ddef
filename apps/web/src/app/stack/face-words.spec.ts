import { faceWords } from './face-words';

const face = (page: number, job = 7) => ({ job, document: 1, page });
const sent = (page: number, ...cells: [document: number, page: number][]) => ({
  ...face(page),
  cells: cells.map(([document, of]) => ({ document, page: of })),
});

test('by the pages of the one document', () => {
  const say = faceWords({ documents: ['a.pdf'], pages: [sent(1, [1, 9]), sent(2, [1, 3], [1, 4]), sent(3)] });
  expect([1, 2, 3].map((page) => say(face(page)))).toEqual(['page 9', 'pages 3, 4', 'blank']);
});

test('by the names of several documents too', () => {
  const pages = [sent(1, [2, 3]), sent(2, [1, 8], [1, 7], [2, 1])];
  const say = faceWords({ documents: ['a.pdf', 'b.pdf'], pages });
  expect([1, 2].map((page) => say(face(page)))).toEqual(['b.pdf 3', 'a.pdf 8, 7, b.pdf 1']);
});

test('what nothing is told of is called by the file; another job’s page is another page', () => {
  expect(faceWords({})(face(4))).toBe('page 4 of the file sent');
  expect(faceWords({ documents: ['a.pdf'], pages: [sent(1, [1, 9])] })(face(1, 8))).toBe('page 1 of the file sent');
});
