import type { Line, TextLayout } from '@stylet/core/typesetting';
import type { Node } from 'prosemirror-model';
import { Plugin, PluginKey, type Transaction } from 'prosemirror-state';
import { Decoration, DecorationSet } from 'prosemirror-view';

/** Where a line of a block begins and ends, in UTF-16 units of it, and how it stands; lengths in points. */
interface LaidLine {
  readonly from: number;
  readonly to: number;
  readonly height: number;
  readonly ascent: number;
  /** How far in its letters begin. */
  readonly x: number;
  /** The room over it, below the line before. */
  readonly above: number;
  /** What is added to each space. */
  readonly stretch: number;
  /** Where tabs are, and how far from the left they lead. */
  readonly tabs: readonly { readonly at: number; readonly stop: number }[];
  /** Where formulas are, and how much room each has. */
  readonly formulas: readonly { readonly at: number; readonly width: number }[];
}

/** A block as it was laid out. */
export interface LaidBlock {
  readonly node: Node;
  /** The position before it. */
  readonly at: number;
  readonly lines: readonly LaidLine[];
  readonly attributes?: Readonly<Record<string, string>>;
  /** Blocks within it, such as the cells of a table. */
  readonly within?: readonly LaidBlock[];
}

/** What the browser sets a text by, and what it was made from for each block. */
interface Laid {
  readonly set: DecorationSet;
  readonly keys: ReadonlyMap<Node, string>;
}

/** Of what sets the lines; as a transaction's meta, that they have been laid out anew. */
export const LINES = new PluginKey<Laid>('lines');

/**
 * Has the browser end the lines of a text where they were laid out to end, and set each as high and as far in as there: so
 * carets, what is selected and the browser's marks for spelling stand where the letters do. `laidOut` tells how they were
 * after a transaction; where it has nothing to tell they go along with their text.
 */
export const settingLines = (
  laidOut: (doc: Node, transaction?: Transaction) => readonly LaidBlock[] | undefined,
): Plugin<Laid> =>
  new Plugin<Laid>({
    key: LINES,
    state: {
      init: (_, { doc }) => laid(NOTHING, doc, laidOut(doc) ?? []),
      apply: (transaction, before) => {
        const { doc, mapping } = transaction;
        const blocks = laidOut(doc, transaction);
        const moved = { ...before, set: before.set.map(mapping, doc) };
        return blocks ? laid(moved, doc, blocks) : moved;
      },
    },
    props: { decorations: (state) => LINES.getState(state)?.set },
  });

const NOTHING: Laid = { set: DecorationSet.empty, keys: new Map() };

/** Makes anew what blocks are set by that were laid out otherwise before. */
function laid(before: Laid, doc: Node, blocks: readonly LaidBlock[]): Laid {
  const keys = new Map<Node, string>();
  const gone: Decoration[] = [];
  const made: Decoration[] = [];
  const isNew: LaidBlock[] = [];
  for (const block of blocks) {
    const key = keyOf(block);
    keys.set(block.node, key);
    if (before.keys.get(block.node) === key) continue;
    isNew.push(block);
    made.push(...decorationsOf(doc, block));
  }
  if (keys.size === isNew.length) return { set: DecorationSet.create(doc, made), keys };
  const within = (node: Node, at: number): void => {
    const end = at + node.nodeSize;
    gone.push(...before.set.find(at, end).filter(({ from, to }) => from >= at && to <= end));
  };
  for (const { node, at } of isNew) within(node, at);
  doc.forEach((node, at) => {
    if (before.keys.has(node) && !keys.has(node)) within(node, at);
  });
  return { set: before.set.remove(gone).add(doc, made), keys };
}

const keyOf = ({ attributes, lines, within = [] }: LaidBlock): string =>
  JSON.stringify([attributes, lines, within.map(keyOf)]);

function decorationsOf(
  doc: Node,
  { node, at, lines, attributes, within = [] }: LaidBlock,
): Decoration[] {
  const decorations = within.flatMap((block) => decorationsOf(doc, block));
  if (attributes) decorations.push(Decoration.node(at, at + node.nodeSize, attributes));
  for (const line of lines) {
    const from = at + 1 + line.from;
    // What ends a line by itself needs no break before what follows.
    const isBroken = line.from > 0 && doc.textBetween(from - 1, from) !== '\n';
    decorations.push(
      Decoration.widget(from, () => startOf(line, isBroken), {
        side: -1,
        key: [isBroken, line.height, line.ascent, line.x, line.above].join(' '),
        ignoreSelection: true,
      }),
    );
    for (const tab of line.tabs)
      decorations.push(
        Decoration.inline(at + 1 + tab.at, at + 2 + tab.at, { style: `tab-size:${tab.stop}px` }),
      );
    for (const { at: within, width } of line.formulas)
      decorations.push(
        Decoration.node(at + 1 + within, at + 2 + within, { style: `width:${width}px` }),
      );
    if (line.stretch)
      decorations.push(
        Decoration.inline(from, at + 1 + line.to, { style: `word-spacing:${line.stretch}px` }),
      );
  }
  return decorations;
}

/** A line `above` points below the one before it, of a text that begins `inset` points from the left. */
export function laidLine(line: Line, above: number, inset = 0): LaidLine {
  const [text] = line.runs.filter(({ width }) => width > 0);
  const hangs = text ? Math.min(0, text.x - line.x) : 0;
  return {
    from: line.from,
    to: line.to,
    height: line.height,
    ascent: line.baseline - line.top,
    x: inset + line.x + hangs,
    above,
    stretch: line.runs.find((run) => run.stretch > 0)?.stretch ?? 0,
    // From the line's beginning a browser goes on to the next multiple: the first one is where a tab leads.
    tabs: line.runs
      .filter(({ text, isRightToLeft }) => text === '\t' && !isRightToLeft)
      .map((run) => ({ at: run.from, stop: inset + run.x + run.width })),
    formulas: line.runs
      .filter(({ formula }) => formula !== undefined)
      .map(({ from, width }) => ({ at: from, width })),
  };
}

/** The paragraphs of a text, each under the one before. */
export function laidParagraphs(doc: Node, { lines }: TextLayout): LaidBlock[] {
  const blocks: (LaidBlock & { lines: LaidLine[] })[] = [];
  doc.forEach((node, at) => blocks.push({ node, at, lines: [] }));
  let below = 0;
  for (const line of lines) {
    blocks[line.paragraph].lines.push(laidLine(line, line.top - below));
    below = line.top + line.height;
  }
  return blocks;
}

/** What stands at the start of a line: a break, a strut that makes the line as high as it is, and the way in. */
function startOf({ height, ascent, x, above }: LaidLine, isBroken: boolean): HTMLElement {
  const start = document.createElement('span');
  start.contentEditable = 'false';
  if (isBroken) start.append(document.createElement('br'));
  const strut = document.createElement('span');
  strut.style.cssText =
    `display:inline-block;width:${x}px;height:${height + above}px;` +
    `vertical-align:${ascent - height}px`;
  start.append(strut);
  return start;
}
