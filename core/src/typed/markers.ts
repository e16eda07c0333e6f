import { MOST_INDENT, type Paragraph } from './body';

/** What stands before an entry, by how far it is indented. */
const BULLETS = ['•', '◦', '▪'];
const CHECKS = { open: '☐', done: '☑' };

/** Counts the entries of numbered lists: a list goes on over what is indented further, and ends with any other paragraph. */
export class Numbering {
  private readonly last = new Array<number | undefined>(MOST_INDENT + 1);

  /** The number of the next paragraph; undefined for those that have none. */
  next({ list, indent = 0, start = 1 }: Paragraph): number | undefined {
    this.last.fill(undefined, indent + 1);
    if (list !== 'number') {
      this.last[indent] = undefined;
      if (!list) this.last.fill(undefined);
      return undefined;
    }
    const before = this.last[indent];
    return (this.last[indent] = before === undefined ? start : before + 1);
  }
}

/** What stands before the words of an entry of a list. */
export function markerOf(
  { list, isDone, indent = 0 }: Paragraph,
  number: number | undefined,
): string {
  switch (list) {
    case 'number':
      return `${number ?? 1}.`;
    case 'check':
      return isDone ? CHECKS.done : CHECKS.open;
    case 'bullet':
      return BULLETS[indent % BULLETS.length];
    case undefined:
      return '';
  }
}
