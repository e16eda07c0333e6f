import { keptDbOf } from './kept-db';

const open = keptDbOf(self.name);
const OWN_FILE = /^\/api\/documents\/([0-9a-f-]+)\/file$/;

/** In a worker: a file that is kept here, by its address on the server or by that of the document whose own it is. */
export async function keptFile(url: string): Promise<Blob | undefined> {
  try {
    const db = await open();
    const { pathname } = new URL(url);
    const id = OWN_FILE.exec(pathname)?.[1];
    const path = id === undefined ? pathname : (await db.get('states', id))?.files[0];
    return path === undefined ? undefined : (await db.get('files', path))?.blob;
  } catch (error) {
    // The server has it as well.
    console.warn('What this browser keeps of a file cannot be read.', error);
    return undefined;
  }
}
