import { rehearseReading } from '../src';

test('a rehearsal reads a text document twice, and needs no file for it', async () => {
  expect(await rehearseReading()).toBe(2);
});
