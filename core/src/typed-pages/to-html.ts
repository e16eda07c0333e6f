import type { Look, Run } from '../typed/index';
import { POINTS_PER_PIXEL } from '../pictures/index';
import { levelOf, type Block, type Table, type TextParagraph, type TextPicture } from './text';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => `&${{ '&': 'amp', '<': 'lt', '>': 'gt', '"': 'quot' }[c]!};`);

/** Where the file of a picture is for whoever reads a text elsewhere; undefined for one that is told by its words. */
export type PictureSource = (picture: TextPicture) => string | undefined;

/** A text as a page of HTML, in elements that say what its parts are; `title` is what it is called. */
export const htmlOf = (blocks: readonly Block[], title: string, source?: PictureSource): string =>
  `<!doctype html>
<html>
<head>
<meta charset="utf-8">
<title>${escaped(title)}</title>
</head>
<body>
${blocksHtml(blocks, source)}</body>
</html>
`;

function blocksHtml(blocks: readonly Block[], source: PictureSource = () => undefined): string {
  const lines: string[] = [];
  const lists = new Lists(lines);
  for (const block of blocks) {
    if (block.kind === 'paragraph' && block.list) {
      lists.entry(block);
      continue;
    }
    lists.end();
    if (block.kind === 'rule') lines.push('<hr>');
    else if (block.kind === 'table') lines.push(tableHtml(block));
    else if (block.kind === 'picture') lines.push(pictureHtml(block, source(block)));
    else lines.push(paragraphHtml(block));
  }
  lists.end();
  return lines.map((line) => `${line}\n`).join('');
}

function paragraphHtml(block: TextParagraph): string {
  const words = runsHtml(block.runs);
  const level = levelOf(block.role);
  const align = block.align && block.align !== 'start' ? ` style="text-align:${block.align}"` : '';
  if (level !== undefined) return `<h${level}${align}>${words}</h${level}>`;
  if (block.role === 'quote') return `<blockquote><p>${words}</p></blockquote>`;
  if (block.role === 'code')
    return `<pre><code>${escaped(block.runs.map(({ text }) => text).join(''))}\n</code></pre>`;
  return `<p${align}>${words}</p>`;
}

/** A picture with what there is to know of it, or its words where there is no file of it. */
export function pictureHtml({ words, wide, align, link }: TextPicture, source?: string): string {
  const width = wide === undefined ? '' : ` width="${wide / POINTS_PER_PIXEL}"`;
  const inner =
    source === undefined
      ? escaped(words ?? '')
      : `<img src="${escaped(source)}" alt="${escaped(words ?? '')}"${width}>`;
  const led = link ? `<a href="${escaped(link)}">${inner}</a>` : inner;
  return `<p${align ? ` style="text-align:${align}"` : ''}>${led}</p>`;
}

function tableHtml({ hasHead, rows }: Table): string {
  const row = (cells: Table['rows'][number], name: string): string =>
    `<tr>${cells
      .map(({ runs, align }) => {
        const style = align && align !== 'start' ? ` style="text-align:${align}"` : '';
        return `<${name}${style}>${runsHtml(runs)}</${name}>`;
      })
      .join('')}</tr>`;
  const lines = rows.map((cells, i) => row(cells, hasHead && i === 0 ? 'th' : 'td'));
  return `<table>\n${lines.join('\n')}\n</table>`;
}

/** Lists within lists, opened and closed as entries go in and out. */
class Lists {
  private readonly open: ('ul' | 'ol')[] = [];

  constructor(private readonly lines: string[]) {}

  entry({ list, start, isDone, indent = 0, runs }: TextParagraph): void {
    const name = list === 'number' ? 'ol' : 'ul';
    while (this.open.length > indent + 1) this.close();
    if (this.open.length === indent + 1) {
      if (this.open[indent] === name && start === undefined) this.lines.push('</li>');
      else this.close();
    }
    while (this.open.length < indent + 1) {
      const isOuter = this.open.length < indent;
      const from = !isOuter && start !== undefined ? ` start="${start}"` : '';
      this.lines.push(`<${name}${from}>`);
      this.open.push(name);
      if (isOuter) this.lines.push('<li>');
    }
    const box = list === 'check' ? `[${isDone ? 'x' : ' '}] ` : '';
    this.lines.push(`<li>${box}${runsHtml(runs)}`);
  }

  end(): void {
    while (this.open.length > 0) this.close();
  }

  private close(): void {
    this.lines.push('</li>', `</${this.open.pop()!}>`);
  }
}

/** Elements that say what words are, the outermost first. */
const ELEMENTS: readonly (readonly [(look: Partial<Look>) => boolean, string])[] = [
  [({ bold }) => bold === true, 'strong'],
  [({ italic }) => italic === true, 'em'],
  [({ underline }) => underline === true, 'u'],
  [({ strike }) => strike === true, 's'],
  [({ behind }) => behind !== undefined, 'mark'],
  [({ script }) => script === 'super', 'sup'],
  [({ script }) => script === 'sub', 'sub'],
  [({ font }) => font === 'noto-sans-mono', 'code'],
];

/** A formula by its TeX notation, which is seen where nothing sets it, and read back (MathML Core, 2.5.1). */
export const annotated = (source: string, display: 'inline' | 'block' = 'inline'): string =>
  `<math${display === 'block' ? ' display="block"' : ''}><semantics><mtext>${escaped(source)}</mtext>` +
  `<annotation encoding="application/x-tex">${escaped(source)}</annotation></semantics></math>`;

export const runsHtml = (runs: readonly Run[]): string => runs.map(runHtml).join('');

function runHtml({ text, look = {} }: Run): string {
  const names = ELEMENTS.flatMap(([is, name]) => (is(look) ? [name] : []));
  const { formula } = look;
  const words =
    formula === undefined
      ? escaped(text).replaceAll('\n', '<br>\n')
      : [...text].map(() => annotated(formula)).join('');
  const inner = names.reduceRight((all, name) => `<${name}>${all}</${name}>`, words);
  return look.link ? `<a href="${escaped(look.link)}">${inner}</a>` : inner;
}
