import type { Database } from '../database/connection';
import type { Handlers } from '../http/bind';
import { listLately, type Incoming } from './incoming-store';
import { listQueues } from './queue';

const MOST_LISTED = 50;

/** Where other programs can print to, and what they printed. @param address of a queue by its name */
export const incomingHandlers = (
  db: Database,
  address: (queue: string) => string,
): Handlers<'queues' | 'incoming'> => ({
  queues: async () =>
    (await listQueues(db)).map(({ name, title, setup }) => ({
      name,
      title,
      address: address(name),
      setupId: setup?.id ?? null,
    })),
  incoming: async () => (await listLately(db, MOST_LISTED)).map(describe),
});

const describe = ({ job }: Incoming) => ({
  id: job.id,
  queue: job.queue,
  name: job.name,
  user: job.userName,
  at: job.createdAt,
  state: job.state,
  message: job.message,
  jobId: job.jobId,
  sendingId: job.sendingId,
});
