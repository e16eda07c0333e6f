import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat, statfs, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from '@stylet/core/problems';
import type { Queries } from '../db/database';
import { readSource } from './chunks';
import type { SpooledFile } from './spooled-file';

/** How much of a file is read at a time, in bytes. */
const PIECE = 1024 * 1024;

/**
 * Copies of sources as files, for tools that want files. Only a cache: the database has them all,
 * and the folder may be emptied at any time.
 */
export class Spool {
  private readonly fetching = new Map<string, Promise<string>>();

  /** `leastFree`: bytes of the disk that are left for others, the database among them. */
  constructor(
    private readonly folder: string,
    private readonly leastFree: number,
    private readonly work = join(folder, 'work', `${process.pid}-${randomUUID()}`),
  ) {}

  /** Makes the folders, and removes what processes that are gone have left in theirs. */
  async prepare(): Promise<void> {
    await mkdir(this.work, { recursive: true });
    const all = join(this.folder, 'work');
    for (const name of await readdir(all))
      if (join(all, name) !== this.work && !isAtWork(name))
        await rm(join(all, name), { recursive: true, force: true });
  }

  /** Removes what this process has left. */
  async clear(): Promise<void> {
    await rm(this.work, { recursive: true, force: true });
  }

  /** A path in the spool that nothing else uses. */
  workPath(suffix: string): string {
    return join(this.work, `${randomUUID()}${suffix}`);
  }

  /** Does some work with a spool whose working files are gone afterwards, however it ends. */
  async withWork<T>(work: (spool: Spool) => Promise<T>): Promise<T> {
    const folder = join(this.work, randomUUID());
    await mkdir(folder);
    try {
      return await work(new Spool(this.folder, this.leastFree, folder));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  /** Throws Problem `disk-full` where so many more bytes would leave too little room. */
  async checkRoom(bytes = 0): Promise<void> {
    const { bavail, bsize } = await statfs(this.folder);
    if (bavail * bsize - bytes < this.leastFree) throw full();
  }

  /** Writes a stream to disk, hashing it on the way. Throws Problem `disk-full`. */
  async take(stream: Readable): Promise<SpooledFile> {
    const path = this.workPath('.pdf');
    const hash = createHash('sha256');
    let size = 0;
    let unchecked = 0;
    const measure = new Transform({
      transform: (chunk: Buffer, _encoding, done) => {
        hash.update(chunk);
        size += chunk.length;
        unchecked += chunk.length;
        if (unchecked < LOOKS_AFTER) {
          done(null, chunk);
          return;
        }
        unchecked = 0;
        this.checkRoom().then(
          () => done(null, chunk),
          (error: Error) => done(error),
        );
      },
    });
    try {
      await pipeline(stream, measure, createWriteStream(path));
    } catch (error) {
      await rm(path, { force: true });
      throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? full() : error;
    }
    return { path, digest: hash.digest('hex'), size };
  }

  /** Measures a file that a tool has written into the spool. */
  async adopt(path: string): Promise<SpooledFile> {
    const hash = createHash('sha256');
    for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
    return { path, digest: hash.digest('hex'), size: (await stat(path)).size };
  }

  /** Keeps a spooled file under its digest, so that it need not be fetched again. */
  async keep(file: SpooledFile): Promise<void> {
    await rename(file.path, this.pathOf(file.digest));
  }

  /** A copy of a source opened for reading, if one is here; whoever asks closes it. */
  async open(digest: string, size: number): Promise<FileHandle | undefined> {
    let file: FileHandle;
    try {
      file = await open(this.pathOf(digest), 'r');
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
      throw error;
    }
    if ((await file.stat()).size === size) return file;
    await file.close();
    return undefined;
  }

  /** The path of a copy of a source, fetched from the database when it is not there. */
  async fetch(queries: Queries, digest: string, size: number): Promise<string> {
    const path = this.pathOf(digest);
    const there = await stat(path).catch(() => undefined);
    if (there?.size === size) return path;
    let fetching = this.fetching.get(digest);
    if (!fetching) {
      fetching = this.download(queries, digest, size, path).finally(() =>
        this.fetching.delete(digest),
      );
      this.fetching.set(digest, fetching);
    }
    return fetching;
  }

  /** What a work file has; it is discarded when that was read, or is wanted no more. */
  readOnce(path: string): Readable {
    const stream = createReadStream(path, { highWaterMark: PIECE });
    stream.once('close', () => void this.discard(path));
    return stream;
  }

  async discard(path: string): Promise<void> {
    await rm(path, { force: true });
  }

  private async download(
    queries: Queries,
    digest: string,
    size: number,
    path: string,
  ): Promise<string> {
    const part = this.workPath('.part');
    await pipeline(readSource(queries, digest, 0, size), createWriteStream(part));
    await rename(part, path);
    return path;
  }

  private pathOf(digest: string): string {
    return join(this.folder, `${digest}.pdf`);
  }
}

/** Bytes after which it is looked whether there is room for more. */
const LOOKS_AFTER = 16 * 1024 * 1024;

const full = (): Problem =>
  new Problem('disk-full', 'What is sent would leave too little for the database.');

/** Whether the process whose folder this is still runs. */
function isAtWork(folder: string): boolean {
  const pid = Number(/^(\d+)-/.exec(folder)?.[1]);
  // A folder of this process's own number is from an earlier process that had the same.
  if (!pid || pid === process.pid) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
