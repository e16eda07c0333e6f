import { closeHistory } from 'prosemirror-history';
import type { Node } from 'prosemirror-model';
import type { EditorState, Transaction } from 'prosemirror-state';
import { schema } from '../../platform/typed/rich-model';

/**
 * Puts what is no paragraph behind the block with the caret, or in its place where that is an empty paragraph; words can
 * follow it. It is a step of undo of its own. Returns where the first of it begins.
 */
export function putBlocks(
  state: EditorState,
  nodes: readonly Node[],
): { readonly tr: Transaction; readonly at: number } {
  const { $to } = state.selection;
  const isEmpty = $to.depth === 1 && $to.parent.content.size === 0;
  const after = $to.depth > 0 ? $to.after(1) : $to.pos;
  const at = isEmpty ? $to.before(1) : after;
  const tr = closeHistory(state.tr).replaceWith(at, after, nodes);
  const end = at + nodes.reduce((sum, { nodeSize }) => sum + nodeSize, 0);
  if (end === tr.doc.content.size) tr.insert(end, schema.node('paragraph'));
  return { tr, at };
}
