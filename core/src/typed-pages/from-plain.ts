import { storableText } from '../bounds/index';
import { LONGEST_PAGES, type Block } from './text';
import type { ReadText } from './from-html';

/** Lines that are broken somewhere near here were ended by hand. */
const HAND_BROKEN = { from: 40, to: 120 };

/**
 * The text of plain words. Lines are paragraphs; where all paragraphs are parted by empty lines and none is longer
 * than lines of print are, their lines were ended by hand, and are joined.
 */
export function textOfPlain(source: string): ReadText {
  const lines = storableText(source, LONGEST_PAGES)
    .replace(/^\ufeff/, '')
    .split(/\r\n|[\n\r\f\v\u0085\u2028\u2029]/)
    .map((line) => line.trimEnd());
  const paragraphs = isHandBroken(lines) ? joined(lines) : lines;
  const blocks = paragraphs.map((words): Block => ({
    kind: 'paragraph',
    runs: words ? [{ text: words }] : [],
  }));
  while (blocks.length > 1 && isEmpty(blocks[blocks.length - 1])) blocks.pop();
  return { blocks, title: undefined };
}

const isEmpty = (block: Block): boolean => block.kind === 'paragraph' && block.runs.length === 0;

function isHandBroken(lines: readonly string[]): boolean {
  const widths = lines.map((line) => line.length);
  const widest = widths.reduce((a, b) => Math.max(a, b), 0);
  if (widest < HAND_BROKEN.from || widest > HAND_BROKEN.to || !lines.includes('')) return false;
  // Most lines that another one follows come near to the widest.
  const followed = widths.filter((width, i) => width > 0 && (widths[i + 1] ?? 0) > 0);
  return (
    followed.length > 3 &&
    followed.filter((width) => width > 0.7 * widest).length > 0.7 * followed.length
  );
}

/** Paragraphs that empty lines part; what is set in by spaces keeps its lines. */
function joined(lines: readonly string[]): string[] {
  const paragraphs: string[] = [];
  let open = false;
  for (const line of lines) {
    if (line === '') open = false;
    else if (open && !/^\s/.test(line)) paragraphs[paragraphs.length - 1] += ` ${line}`;
    else {
      paragraphs.push(line);
      open = true;
    }
  }
  return paragraphs;
}
