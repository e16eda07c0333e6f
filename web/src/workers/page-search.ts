import { unite, type Box } from '@stylet/core/geometry';
import { matchesOn, searchable, type FindQuery, type Searchable } from '@stylet/core/find';
import type { Line } from '@stylet/core/text';
import type { FoundMatch, PageOfFile } from './protocol';

interface Read {
  /** By whether case is kept. */
  readonly texts: Map<boolean, Searchable>;
  /** Box and line of each word: x0, y0, x1, y1, line. */
  readonly boxes: Float32Array;
}

/** Pages' texts as they are searched; a page is read once. */
export class PageSearch {
  private readonly pages = new Map<string, Read>();

  constructor(private readonly linesOf: (page: PageOfFile) => Promise<readonly Line[]>) {}

  /** The matches on a page, with the boxes of what they touch, line by line. */
  async find(page: PageOfFile, query: FindQuery): Promise<FoundMatch[]> {
    const { keepsCase } = query.options;
    const key = `${page.page} ${page.url}`;
    let read = this.pages.get(key);
    let text = read?.texts.get(keepsCase);
    if (!read || !text) {
      const lines = await this.linesOf(page);
      read ??= { texts: new Map(), boxes: boxesOf(lines) };
      text = searchable(lines, keepsCase);
      read.texts.set(keepsCase, text);
      this.pages.set(key, read);
    }
    const { boxes } = read;
    return matchesOn(text, query).map(({ words, before, match, after }) => ({
      before,
      match,
      after,
      boxes: runsOf(words, boxes),
    }));
  }
}

function boxesOf(lines: readonly Line[]): Float32Array {
  const rows = lines.flatMap(({ words }, line) =>
    words.flatMap(({ box }) => [box.x0, box.y0, box.x1, box.y1, line]),
  );
  return Float32Array.from(rows);
}

/** Boxes round words that stand in one line. */
function runsOf(words: readonly number[], boxes: Float32Array): Box[] {
  const runs: Box[] = [];
  let line = -1;
  for (const word of words) {
    const [x0, y0, x1, y1, on] = boxes.subarray(5 * word, 5 * word + 5);
    const box = { x0, y0, x1, y1 };
    if (on === line) runs.push(unite(runs.pop()!, box));
    else runs.push(box);
    line = on;
  }
  return runs;
}
