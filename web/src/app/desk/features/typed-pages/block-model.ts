import type { Block, Cell, Role, Table, TextParagraph } from '@stylet/core/typed-pages';
import { Fragment, type Node } from 'prosemirror-model';
import {
  inlineOf,
  paragraphNode,
  paragraphOf,
  runsOf,
  schema,
} from '../../platform/typed/rich-model';

const blocks = new WeakMap<Node, Block>();
const nodes = new WeakMap<Block, Node>();
/** Cells by the nodes they are: one that stays is the same object, so that it is not laid out again. */
const cells = new WeakMap<Node, Cell>();

/** A block as the editor has it; the same node for the same block. */
function nodeOf(block: Block): Node {
  const known = nodes.get(block);
  if (known) return known;
  const node = madeOf(block);
  nodes.set(block, node);
  blocks.set(node, block);
  return node;
}

function madeOf(block: Block): Node {
  if (block.kind === 'paragraph')
    return paragraphNode(block, { role: block.role ?? null, id: block.id ?? null });
  return block.kind === 'table' ? tableNode(block) : schema.nodes['other'].create({ block });
}

function tableNode({ id, hasHead, rows }: Table): Node {
  const made = rows.map((row) => schema.node('row', null, row.map(cellNode)));
  return schema.node('table', { id: id ?? null, hasHead }, made);
}

function cellNode(cell: Cell): Node {
  const node = schema.node('cell', { align: cell.align ?? null }, inlineOf(cell.runs));
  cells.set(node, cell);
  return node;
}

/** The block of a node of the editor; the same one for the same node. */
function blockOf(node: Node): Block {
  const known = blocks.get(node);
  if (known) return known;
  const block = readBlock(node);
  blocks.set(node, block);
  return block;
}

function readBlock(node: Node): Block {
  if (node.type === schema.nodes['other']) return node.attrs['block'] as Block;
  return node.type === schema.nodes['table'] ? readTable(node) : readParagraph(node);
}

function readParagraph(node: Node): TextParagraph {
  const role = node.attrs['role'] as Role | null;
  const id = node.attrs['id'] as string | null;
  return {
    kind: 'paragraph',
    ...(id ? { id } : {}),
    ...(role ? { role } : {}),
    ...paragraphOf(node),
  };
}

function readTable(node: Node): Table {
  const id = node.attrs['id'] as string | null;
  const rows = node.children.map((row) => row.children.map(cellOf));
  return { ...(id ? { id } : {}), kind: 'table', hasHead: node.attrs['hasHead'] === true, rows };
}

function cellOf(node: Node): Cell {
  let cell = cells.get(node);
  if (!cell) {
    const align = node.attrs['align'] as Cell['align'] | null;
    cell = { runs: runsOf(node), ...(align ? { align } : {}) };
    cells.set(node, cell);
  }
  return cell;
}

/** The text of pages as the editor has it. */
export const docOfBlocks = (list: readonly Block[]): Node =>
  schema.nodes['doc'].create(null, Fragment.from(list.map(nodeOf)));

export function blocksOf(doc: Node): Block[] {
  const list: Block[] = [];
  doc.forEach((node) => list.push(blockOf(node)));
  return list;
}

/** Where each block begins in the document of the editor: before its first letter, or its first row. */
export function startsIn(doc: Node): number[] {
  const starts: number[] = [];
  doc.forEach((_, offset) => starts.push(offset + 1));
  return starts;
}
