/// <reference lib="webworker" />
import type { StoredTexts } from '@stylet/core/api';
import { TEXTS_TOGETHER, wordsFromBase64, type LayerWords } from '@stylet/core/find';

/** What the server has read of files, so that it need not be read out of them once more. */
export class TextsOnServer {
  private readonly parts = new Map<string, Promise<StoredTexts | undefined>>();

  /** The layers of a page of a file, by its digest; undefined where the server has not read it, or is away. */
  async layersOf(source: string, page: number): Promise<LayerWords[] | undefined> {
    const key = `${source}/texts/${Math.floor(page / TEXTS_TOGETHER)}`;
    let part = this.parts.get(key);
    if (!part)
      this.parts.set(key, (part = get(new URL(`/api/sources/${key}`, self.location.origin))));
    const stored = await part;
    if (!stored || page >= stored.read) {
      // What is read meanwhile is there the next time.
      if (this.parts.get(key) === part) this.parts.delete(key);
      return undefined;
    }
    return stored.texts
      .filter((each) => each.page === page)
      .map(({ layer, text, words }) => ({ layer, text, ...wordsFromBase64(words) }));
  }
}

async function get(url: URL): Promise<StoredTexts | undefined> {
  try {
    const reply = await fetch(url);
    return reply.ok ? ((await reply.json()) as StoredTexts) : undefined;
  } catch {
    // The file has it as well, if it takes longer.
    return undefined;
  }
}
