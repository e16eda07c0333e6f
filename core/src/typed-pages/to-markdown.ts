import { DISPLAY, type Look, type Run } from '../typed/index';
import { levelOf, type Block, type Table, type TextParagraph, type TextPicture } from './text';
import { annotated, pictureHtml, runsHtml, type PictureSource } from './to-html';

/** A text as Markdown (CommonMark 0.31, with tables, strikes and check lists). */
export function markdownOf(
  blocks: readonly Block[],
  source: PictureSource = () => undefined,
): string {
  const parts: string[] = [];
  const files = new PictureFiles(source);
  const numbers: number[] = [];
  let before: Block | undefined;
  for (const block of blocks) {
    const isEntry = block.kind === 'paragraph' && block.list !== undefined;
    if (!isEntry) numbers.length = 0;
    const text =
      block.kind === 'rule'
        ? '---'
        : block.kind === 'table'
          ? tableText(block)
          : block.kind === 'picture'
            ? files.text(block)
            : paragraphText(block, numbers);
    if (text === undefined) continue;
    parts.push(`${isTight(before, block) ? '' : gapBetween(before, block)}${text}\n`);
    before = block;
  }
  return parts.join('') + files.definitions();
}

/** Where pictures are is told at the end (CommonMark 0.31, 4.7): what is written out is longer than all words. */
class PictureFiles {
  private readonly labels = new Map<string, string>();

  constructor(private readonly source: PictureSource) {}

  text(picture: TextPicture): string | undefined {
    const source = this.source(picture);
    const { words = '', wide, align, link } = picture;
    if (source !== undefined && (wide !== undefined || align)) return pictureHtml(picture, source);
    const plain = source === undefined ? runsText(words ? [{ text: words }] : []) : undefined;
    if (plain === '') return undefined;
    const shown = plain ?? `![${escaped(words.replace(/\s+/g, ' '))}][${this.label(source!)}]`;
    return link ? `[${shown}](${destination(link)})` : shown;
  }

  definitions(): string {
    const lines = [...this.labels].map(([source, label]) => `[${label}]: ${destination(source)}\n`);
    return lines.length > 0 ? `\n${lines.join('')}` : '';
  }

  private label(source: string): string {
    const label = this.labels.get(source) ?? `picture ${this.labels.size + 1}`;
    this.labels.set(source, label);
    return label;
  }
}

const destination = (address: string): string =>
  `<${address.replace(/[<>\\]/g, encodeURIComponent)}>`;

/** Entries of one list follow each other without an empty line. */
const isTight = (before: Block | undefined, block: Block): boolean =>
  before?.kind === 'paragraph' &&
  block.kind === 'paragraph' &&
  before.list !== undefined &&
  block.list !== undefined &&
  block.start === undefined;

/** Two lists that follow each other, and code after a list, have to be told apart. */
function gapBetween(before: Block | undefined, block: Block): string {
  if (!before) return '';
  const isList = (one: Block): boolean => one.kind === 'paragraph' && one.list !== undefined;
  return isList(before) && isList(block) ? '\n<!-- -->\n\n' : '\n';
}

function paragraphText(block: TextParagraph, numbers: number[]): string | undefined {
  const { role, runs, indent = 0 } = block;
  if (role === 'code') return fenced(runs.map(({ text }) => text).join(''));
  if (runs.length === 1 && !block.list && role === undefined) {
    const alone = formulaAlone(runs[0]);
    if (alone !== undefined) return alone;
  }
  const words = runsText(runs);
  if (block.list) return entryText(block, words, numbers);
  if (words === '') return undefined;
  const level = levelOf(role);
  if (level !== undefined) return `${'#'.repeat(level)} ${words.replaceAll('\\\n', ' ')}`;
  const quotes = role === 'quote' ? '> '.repeat(1 + indent) : '';
  return quotes + safeStart(words).replaceAll('\n', `\n${quotes}`);
}

function entryText(
  { list, start, isDone, indent = 0 }: TextParagraph,
  words: string,
  numbers: number[],
): string {
  numbers.length = Math.min(numbers.length, list === 'number' ? indent + 1 : indent);
  if (list === 'number')
    numbers[indent] = start ?? (numbers[indent] === undefined ? 1 : numbers[indent] + 1);
  const mark = list === 'number' ? `${numbers[indent]}.` : '-';
  const box = list === 'check' ? `[${isDone ? 'x' : ' '}] ` : '';
  const inset = '    '.repeat(indent);
  // So wide that what stands further in belongs to it, whatever its number is.
  const text = `${mark.padEnd(3)} ${box}${safeStart(words)}`.trimEnd();
  return inset + text.replaceAll('\n', `\n${inset}    `);
}

function fenced(code: string): string {
  const longest = Math.max(2, ...[...code.matchAll(/`+/g)].map(([ticks]) => ticks.length));
  const fence = '`'.repeat(longest + 1);
  return `${fence}\n${code}\n${fence}`;
}

function tableText({ hasHead, rows }: Table): string {
  const columns = Math.max(...rows.map((row) => row.length));
  const line = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
  const words = rows.map((row) =>
    Array.from({ length: columns }, (_, i) =>
      runsText(row[i]?.runs ?? []).replaceAll('\\\n', '<br>'),
    ),
  );
  const marks = { center: ':-:', end: '--:', start: '---', justify: '---' };
  const rule = Array.from({ length: columns }, (_, i) => marks[rows[0][i]?.align ?? 'start']);
  // A table without a head has an empty one: Markdown has none without.
  const head = hasHead ? words[0] : new Array<string>(columns).fill('');
  return [head, rule, ...words.slice(hasHead ? 1 : 0)].map(line).join('\n');
}

const runsText = (runs: readonly Run[]): string =>
  runs.map((run, i) => runText(run, runs[i - 1], runs[i + 1])).join('');

/** What Markdown has a mark for. */
const MARKED = new Set<keyof Look>(['bold', 'italic', 'strike', 'link', 'font']);

/** Its notation is Markdown too where it stands between elements. */
function formulaHtml(
  { text, look: { formula: _formula, ...look } = {} }: Run,
  formula: string,
): string {
  const [opening, closing] = runsHtml([{ text: '\0', look }]).split('\0');
  const one = annotated('\0').replaceAll('\0', escaped(formula.replaceAll('\n', ' ')));
  return `${opening}${one.repeat(text.length)}${closing}`;
}

/** A formula that has a line of its own. */
function formulaAlone({ text, look }: Run): string | undefined {
  const formula = look?.formula;
  if (formula === undefined || text.length > 1 || !formula.startsWith(DISPLAY)) return undefined;
  const source = formula.slice(DISPLAY.length);
  return source.includes('$') ? undefined : `$$${source}$$`;
}

function runText(run: Run, before: Run | undefined, after: Run | undefined): string {
  const { text, look = {} } = run;
  const { formula } = look;
  if (formula !== undefined) {
    // What would end too early, or be taken for money, is told as HTML is.
    const isPlain =
      text.length === 1 &&
      Object.keys(look).length === 1 &&
      !/[$\n`]|^\s|\s$|\\$/.test(formula) &&
      !/^\d/.test(after?.text ?? '') &&
      before?.look?.formula === undefined &&
      !/\$$/.test(before?.text ?? '');
    return isPlain ? `$${formula}$` : formulaHtml(run, formula);
  }
  const isCode = look.font === 'noto-sans-mono';
  const keys = keysOf(look);
  if (!isMarked(run)) return escaped(text);
  const isPlain = keys.every((key) => MARKED.has(key)) && !text.includes('\n');
  // Marks count beside letters, whatever stands outside of them but other marks (CommonMark 0.31, 6.2).
  const isApart =
    /^[\p{L}\p{N}]/u.test(text) &&
    /[\p{L}\p{N}]$/u.test(text) &&
    !(before && isMarked(before)) &&
    !(after && isMarked(after));
  if (!isPlain || !isApart || (isCode && /[`|]/.test(text))) return markedHtml(run);
  let words = isCode ? `\`${text}\`` : escaped(text);
  if (look.strike) words = `~~${words}~~`;
  if (look.italic) words = `*${words}*`;
  if (look.bold) words = `**${words}**`;
  return look.link ? `[${words}](${destination(look.link)})` : words;
}

const keysOf = (look: Partial<Look>): (keyof Look)[] =>
  (Object.keys(look) as (keyof Look)[]).filter((key) => look[key] !== false);

/** Whether words have a look that Markdown can say. */
const isMarked = ({ look = {} }: Run): boolean =>
  look.font === 'noto-sans-mono' ||
  keysOf(look).some((key) => key !== 'size' && key !== 'color' && key !== 'font');

/** Elements of HTML stand for themselves in Markdown; what is between them is Markdown still. */
const markedHtml = ({ text, look }: Run): string => {
  const [opening, closing] = runsHtml([{ text: '\0', look }]).split('\0');
  return `${opening}${escaped(text)}${closing}`;
};

/** What could be taken for a mark is not; a line break within a paragraph is a backslash at the end of a line. */
const escaped = (text: string): string =>
  text.replace(/[\\`*_[\]<>~|&$]/g, '\\$&').replace(/\n/g, '\\\n');

/** What begins a paragraph could begin something else. */
const safeStart = (words: string): string =>
  words.replace(/^([#+=-])/gm, '\\$1').replace(/^(\d{1,9})([.)])(\s|$)/gm, '$1\\$2$3');
