import { join } from 'node:path';
import { readConfig } from '../src/config';

const profile = join(__dirname, '../../../demo/printers/upper-office.json');
const least = { DATABASE_URL: 'postgres://x' };

test('the usual values', () => {
  expect(readConfig(least, '/web')).toEqual({
    databaseUrl: 'postgres://x',
    port: 4800,
    webFolder: '/web',
    uploadLimit: 512 * 1024 * 1024,
    printers: [],
  });
});

test('printers with their profiles', () => {
  const entry = { id: 'upper-office', uri: 'ipp://127.0.0.1:1/ipp/print', profile };
  const { printers } = readConfig({ ...least, FOGLIO_PRINTERS: JSON.stringify([entry]) }, '/web');
  expect(printers).toEqual([
    expect.objectContaining({
      id: 'upper-office',
      panel: null,
      profile: expect.objectContaining({ name: 'Upper office' }) as object,
    }),
  ]);
});

test('what is wrong is named', () => {
  expect(() => readConfig({}, '/web')).toThrow('DATABASE_URL is not set');
  expect(() => readConfig({ ...least, PORT: 'http' }, '/web')).toThrow('PORT must be a number, not "http"');
});
