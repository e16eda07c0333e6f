import type { NodeSpec } from 'prosemirror-model';

/** Tables of a text as the editor has them: rows of cells, each a paragraph of its own that nothing is joined with. */
export const tableNodes = {
  table: {
    content: 'row+',
    group: 'block',
    attrs: { id: { default: null }, hasHead: { default: false } },
    isolating: true,
    toDOM: () => ['table', { role: 'table' }, ['tbody', { role: 'rowgroup' }, 0]],
  },
  row: { content: 'cell*', toDOM: () => ['tr', { role: 'row' }, 0] },
  cell: {
    content: 'inline*',
    attrs: { align: { default: null } },
    isolating: true,
    toDOM: () => ['td', { role: 'cell' }, 0],
  },
} satisfies Record<string, NodeSpec>;
