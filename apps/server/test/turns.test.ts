import { Turns } from '../src/incoming/turns';

/** Work that ends when the test says so. */
function work() {
  let end: () => void = () => undefined;
  const ended = new Promise<void>((resolve) => (end = resolve));
  let begun = false;
  return {
    run: (): Promise<void> => ((begun = true), ended),
    end: () => end(),
    get begun() {
      return begun;
    },
  };
}

const settled = async (): Promise<void> => {
  for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
};

test('so many go on at once, the others in their order; what fails gives its place on too', async () => {
  const turns = new Turns(2, 4);
  const works = [work(), work(), work(), work()];
  const done = works.map((one) => turns.take(one.run));
  await settled();
  expect(works.map(({ begun }) => begun)).toEqual([true, true, false, false]);
  expect(turns.isFull).toBe(true);
  works[1]!.end();
  await settled();
  expect(works.map(({ begun }) => begun)).toEqual([true, true, true, false]);
  expect(turns.isFull).toBe(false);
  const failing = turns.take(() => Promise.reject(new Error('no')));
  works[0]!.end();
  await settled();
  expect(works[3]!.begun).toBe(true);
  works[2]!.end();
  await expect(failing).rejects.toThrow('no');
  works[3]!.end();
  await Promise.all(done);
  expect(turns.isFull).toBe(false);
});
