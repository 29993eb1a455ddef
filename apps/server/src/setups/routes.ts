import type { Database } from '../database/connection';
import type { Handlers } from '../http/bind';
import { changeSetup, describeSetup, findSetup, listSetups, removeSetup, saveSetup } from './setup-store';

/** What jobs start from, and what can be had again. */
export const setupHandlers = (db: Database): Handlers<'setups' | 'saveSetup' | 'changeSetup' | 'removeSetup'> => ({
  setups: async () => (await listSetups(db)).map(describeSetup),
  saveSetup: async ({ body }) => describeSetup(await saveSetup(db, body)),
  changeSetup: async ({ params, body }) => describeSetup(await changeSetup(db, await findSetup(db, params.id), body)),
  removeSetup: async ({ params }) => removeSetup(db, await findSetup(db, params.id)),
});
