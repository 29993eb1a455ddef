import { rehearse } from '../src';

test('a rehearsal reads hundreds of pages of both kinds of files, and needs no file for it', async () => {
  expect(await rehearse()).toBe(300);
});
