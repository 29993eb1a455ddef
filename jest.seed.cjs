// What tests look for in it they look for by other means.
process.env.FOGLIO_LOG_LEVEL ??= 'silent';

const fc = require('fast-check');

// The same jobs each time, so that a test fails for what was changed and not by chance; `npm run laws` tries others.
const seed = Number(process.env.FOGLIO_SEED ?? 1);
fc.configureGlobal({ seed: seed === 0 ? Date.now() : seed });
