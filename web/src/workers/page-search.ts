import {
  boxesOfWords,
  matchesOn,
  pageWords,
  searchable,
  type FindQuery,
  type PageWords,
  type Searchable,
} from '@stylet/core/find';
import type { Line } from '@stylet/core/text';
import type { FoundMatch, PageOfFile } from './protocol';

interface Read {
  readonly words: PageWords;
  /** By whether case is kept. */
  readonly texts: Map<boolean, Searchable>;
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
    if (!read) {
      read = { words: pageWords(await this.linesOf(page)), texts: new Map() };
      this.pages.set(key, read);
    }
    const { words: pages, texts } = read;
    let text = texts.get(keepsCase);
    if (!text) texts.set(keepsCase, (text = searchable(pages, keepsCase)));
    return matchesOn(text, query).map(({ words, ...around }) => ({
      ...around,
      boxes: boxesOfWords(words, pages.boxes),
    }));
  }
}
