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
    // Nobody from elsewhere prints, and nobody is told, unless somebody wants that.
    ipp: { host: '127.0.0.1', port: 8632, announce: false },
    limits: { keepDays: 90, graceHours: 24 },
    askAgainMs: 3_600_000,
    printers: [],
  });
});

test('where Foglio can be printed to, and whether the net is told', () => {
  const env = { ...least, FOGLIO_IPP_HOST: '0.0.0.0', FOGLIO_IPP_PORT: '631', FOGLIO_DNS_SD: 'yes' };
  expect(readConfig(env, '/web').ipp).toEqual({ host: '0.0.0.0', port: 631, announce: true });
});

test('how long is kept what nobody needs', () => {
  const env = { ...least, FOGLIO_KEEP_DAYS: '7', FOGLIO_GRACE_HOURS: '1' };
  expect(readConfig(env, '/web').limits).toEqual({ keepDays: 7, graceHours: 1 });
  expect(() => readConfig({ ...least, FOGLIO_KEEP_DAYS: 'a week' }, '/web')).toThrow(
    'FOGLIO_KEEP_DAYS must be a number',
  );
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
