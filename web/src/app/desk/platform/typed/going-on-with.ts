import type { Node } from 'prosemirror-model';
import type { Transaction } from 'prosemirror-state';

/** Makes a text another, with as little as can be replaced, so that what is selected stays among its words. */
export function goOnWith(transaction: Transaction, wanted: Node): Transaction {
  const { doc } = transaction;
  if (doc.childCount !== wanted.childCount) return replaced(transaction, doc, wanted, 0);
  // From the end, so that what comes before stays where it is.
  for (let i = doc.childCount - 1, at = doc.content.size; i >= 0; i--) {
    at -= doc.child(i).nodeSize;
    const [before, after] = [doc.child(i), wanted.child(i)];
    if (before.eq(after)) continue;
    if (before.sameMarkup(after)) replaced(transaction, before, after, at + 1);
    else transaction.replaceWith(at, at + before.nodeSize, after);
  }
  return transaction;
}

/** Replaces what differs in the content of a node, which begins at a position. */
function replaced(transaction: Transaction, before: Node, after: Node, at: number): Transaction {
  const start = before.content.findDiffStart(after.content);
  const end = before.content.findDiffEnd(after.content);
  if (start === null || !end) return transaction;
  // What is the same twice may be found from both ends: it counts once.
  const over = Math.max(0, start - Math.min(end.a, end.b));
  return transaction.replace(at + start, at + end.a + over, after.slice(start, end.b + over));
}
