import { rehearseReading } from '../src';

test('a rehearsal reads a text document again and again, and needs no file for it', async () => {
  expect(await rehearseReading()).toBe(4);
});
