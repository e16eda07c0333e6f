import { mkdir } from 'node:fs/promises';
import type { PictureFacts } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import type { Identity } from '../access/identity';
import { seenPictures } from '../pictures/seen';
import { storePicture, type PictureTools } from '../pictures/store';
import type { PicturesBeside } from '../sources/upload';

/**
 * The pictures of a file of text, by where that says that they are: those that were sent before it, and those that are
 * written out in it. What is no picture is left out.
 */
export async function picturesOfText(
  tools: PictureTools,
  identity: Identity,
  path: string,
  beside: PicturesBeside,
): Promise<[string, PictureFacts][]> {
  const { database, pool, spool } = tools;
  const seen = await seenPictures(database, identity, Object.values(beside));
  const known = Object.entries(beside).flatMap(([name, digest]): [string, PictureFacts][] => {
    const facts = seen.get(digest);
    return facts ? [[name, facts]] : [];
  });
  const to = spool.workPath('.pictures');
  await mkdir(to);
  for (const { source, path: written } of await pool.writtenOut({ path, to })) {
    const facts = await stored(tools, identity, written);
    if (facts) known.push([source, facts]);
  }
  return known;
}

async function stored(
  tools: PictureTools,
  identity: Identity,
  path: string,
): Promise<PictureFacts | undefined> {
  try {
    return await storePicture(tools, identity, await tools.spool.adopt(path));
  } catch (error) {
    if (error instanceof Problem && error.status < 500) return undefined;
    throw error;
  } finally {
    await tools.spool.discard(path);
  }
}
