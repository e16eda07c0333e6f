/// <reference lib="webworker" />
import { Answering } from '../workers/answering';
import { BlobBytes } from './blob-bytes';
import { keptDbOf } from './kept-db';
import { Keeper, isFull } from './keeper';
import type { KeptRequests } from './protocol';
import { Gone, KeptServer } from './server';

/** Without locks (pages that do not come over HTTPS) windows may do the same twice. */
const alone = <T>(work: () => Promise<T>): Promise<T> =>
  'locks' in navigator ? (navigator.locks.request(self.name, work) as Promise<T>) : work();

const server = new KeptServer((url, how) => fetch(url, how));
const keeper = new Keeper(keptDbOf(self.name), server, alone, (file) => new BlobBytes(file));

new Answering<KeptRequests>({
  keep: async (keeping) => {
    try {
      return { kind: 'kept', state: await keeper.keep(keeping) };
    } catch (error) {
      if (error instanceof Gone) return { kind: 'gone' };
      if (isFull(error)) return { kind: 'no-room' };
      throw error;
    }
  },
  begin: async (beginning) => {
    try {
      const title = await keeper.begin(beginning);
      return title === undefined ? { kind: 'unreadable' } : { kind: 'kept', title };
    } catch (error) {
      if (isFull(error)) return { kind: 'no-room' };
      throw error;
    }
  },
  advance: ({ id, operations }) => keeper.advance(id, operations),
  remove: ({ id }) => done(keeper.remove(id)),
  choose: ({ id, isChosen }) => done(keeper.choose(id, isChosen)),
  trim: ({ most }) => done(keeper.trim(most)),
});

async function done(work: Promise<void>): Promise<undefined> {
  await work;
  return undefined;
}
