import type { KeptRequests } from '../../kept/protocol';
import { WorkerClient } from '../../workers/worker-client';
import { KEPT_DB } from '../storage/account';

/** Starts what keeps documents. */
export const startKeptWorker = (): WorkerClient<KeptRequests> =>
  new WorkerClient<KeptRequests>(
    new Worker(new URL('../../kept/kept.worker', import.meta.url), {
      type: 'module',
      name: KEPT_DB,
    }),
    (message) => console.warn('Keeping documents failed.', message),
  );
