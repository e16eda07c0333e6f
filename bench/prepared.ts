import { readFileSync } from 'node:fs';
import { Instance } from '../e2e/support/instance';

/** A library as a server has left it, from which others begin. */
interface Prepared<T> {
  readonly instance: Instance;
  readonly facts: T;
}

const prepared = new Map<string, Promise<Prepared<unknown>>>();

/** Lets go of what was prepared. */
export async function removePrepared(): Promise<void> {
  for (const one of await Promise.allSettled(prepared.values()))
    // What could not be made was told where it was asked for.
    if (one.status === 'fulfilled') await one.value.instance.remove();
  prepared.clear();
}

/**
 * Runs something with a server of its own whose library `prepare` has made. That takes long, so it is done once for all
 * benchmarks of a run: each begins with a copy.
 */
export async function withPrepared<T, R>(
  name: string,
  prepare: (instance: Instance) => Promise<T>,
  work: (instance: Instance, facts: T) => Promise<R>,
): Promise<R> {
  let known = prepared.get(name) as Promise<Prepared<T>> | undefined;
  if (!known) prepared.set(name, (known = makeOne(`prepared_${name}`, prepare)));
  const { instance: model, facts } = await known;
  return served(await model.copied('bench'), (instance) => work(instance, facts));
}

/** Runs something with a server, which is gone after that. */
export async function served<T>(
  instance: Instance,
  work: (instance: Instance) => Promise<T>,
): Promise<T> {
  try {
    await instance.start();
    return await work(instance);
  } finally {
    await instance.remove();
  }
}

async function makeOne<T>(
  name: string,
  prepare: (instance: Instance) => Promise<T>,
): Promise<Prepared<T>> {
  const instance = await Instance.create(name);
  await instance.start();
  try {
    const facts = await prepare(instance);
    await instance.kill();
    return { instance, facts };
  } catch (error) {
    await instance.remove();
    throw error;
  }
}

/** Brings files in, has them read and drawn: what is measured is not how it goes beside that. The ids of the documents. */
export async function bringInAll(
  instance: Instance,
  paths: readonly string[],
  name = 'Manual.pdf',
): Promise<string[]> {
  const ids: string[] = [];
  for (const path of paths) ids.push(await instance.bringIn(readFileSync(path), name));
  await instance.indexed();
  await instance.drawn();
  return ids;
}
