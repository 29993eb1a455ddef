import { changedSetup, newSetup } from '@foglio/api';
import { Router } from 'express';
import type { Database } from '../database/connection';
import { bodyReader } from '../http/body';
import { changeSetup, describeSetup, findSetup, listSetups, removeSetup, saveSetup } from './setup-store';

const readNew = bodyReader(newSetup);
const readChange = bodyReader(changedSetup);

/** `/api/setups`: what jobs start from, and what can be had again. */
export function setupRoutes(db: Database): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json((await listSetups(db)).map(describeSetup));
  });

  router.post('/', async (request, response) => {
    response.status(201).json(describeSetup(await saveSetup(db, readNew(request.body))));
  });

  router.put('/:id', async (request, response) => {
    const change = readChange(request.body);
    response.json(describeSetup(await changeSetup(db, await findSetup(db, request.params.id), change)));
  });

  router.delete('/:id', async (request, response) => {
    await removeSetup(db, await findSetup(db, request.params.id));
    response.status(204).end();
  });

  return router;
}
