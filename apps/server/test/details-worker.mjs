// The reading thread from its source: a thread does not take over how the tests translate TypeScript.
import { register } from 'tsx/esm/api';

register();
await import('../src/files/details-worker.ts');
