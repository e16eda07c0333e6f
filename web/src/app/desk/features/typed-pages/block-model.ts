import type { Block, Role, TextParagraph } from '@stylet/core/typed-pages';
import { Fragment, type Node } from 'prosemirror-model';
import { paragraphNode, paragraphOf, schema } from '../../platform/typed/rich-model';

const blocks = new WeakMap<Node, Block>();
const nodes = new WeakMap<Block, Node>();

/** A block as the editor has it; the same node for the same block. */
function nodeOf(block: Block): Node {
  const known = nodes.get(block);
  if (known) return known;
  const node =
    block.kind === 'paragraph'
      ? paragraphNode(block, { role: block.role ?? null, id: block.id ?? null })
      : schema.nodes['other'].create({ block });
  nodes.set(block, node);
  blocks.set(node, block);
  return node;
}

/** The block of a node of the editor; the same one for the same node. */
function blockOf(node: Node): Block {
  const known = blocks.get(node);
  if (known) return known;
  const block =
    node.type === schema.nodes['other'] ? (node.attrs['block'] as Block) : paragraphBlock(node);
  blocks.set(node, block);
  return block;
}

function paragraphBlock(node: Node): TextParagraph {
  const role = node.attrs['role'] as Role | null;
  const id = node.attrs['id'] as string | null;
  return {
    kind: 'paragraph',
    ...(id ? { id } : {}),
    ...(role ? { role } : {}),
    ...paragraphOf(node),
  };
}

/** The text of pages as the editor has it. */
export const docOfBlocks = (list: readonly Block[]): Node =>
  schema.nodes['doc'].create(null, Fragment.from(list.map(nodeOf)));

export function blocksOf(doc: Node): Block[] {
  const list: Block[] = [];
  doc.forEach((node) => list.push(blockOf(node)));
  return list;
}

/** Where each block begins in the document of the editor: before its first letter. */
export function startsIn(doc: Node): number[] {
  const starts: number[] = [];
  doc.forEach((_, offset) => starts.push(offset + 1));
  return starts;
}
