import type { Block } from '@stylet/core/typed-pages';
import { setRole } from './page-keys';
import fc from 'fast-check';
import { EditorState, TextSelection, type Command } from 'prosemirror-state';
import { setParagraphs } from '../../platform/typed/text-commands';
import { blocksOf, docOfBlocks } from './block-model';
import {
  addColumn,
  addRow,
  emptyCells,
  goToCell,
  putTable,
  removeColumn,
  removeRow,
  removeTable,
  stayInCell,
  tableAt,
  toggleHead,
} from './table-commands';
import { placeOf, positionOf } from './text-positions';

const cell = (text: string) => ({ runs: text ? [{ text }] : [] });
const table: Block = {
  kind: 'table',
  id: 'table',
  hasHead: true,
  rows: [
    [cell('Place'), { ...cell('Height'), align: 'end' }],
    [cell('Quay'), cell('2.10 m')],
  ],
};
const words = (text: string, id: string): Block => ({ kind: 'paragraph', id, ...cell(text) });
const TEXT: Block[] = [words('Before', 'before'), table, words('After', 'after')];

/** The editor with the caret in a cell, or with what is selected up to another. */
function at(
  [row, column, offset]: readonly [number, number, number],
  to?: readonly [number, number, number],
): EditorState {
  const doc = docOfBlocks(TEXT);
  const [from, end] = [[row, column, offset] as const, to ?? ([row, column, offset] as const)].map(
    ([r, c, o]) => positionOf(doc, { owner: { block: 1, row: r, column: c }, offset: o })!,
  );
  return EditorState.create({ doc, selection: TextSelection.create(doc, from, end) });
}

function after(state: EditorState, command: Command): EditorState {
  let next = state;
  command(state, (tr) => (next = state.apply(tr)));
  return next;
}
const rowsOf = ({ doc }: EditorState) =>
  blocksOf(doc).flatMap((block) =>
    block.kind === 'table'
      ? block.rows.map((row) => row.map(({ runs }) => runs[0]?.text ?? ''))
      : [],
  );
const placeIn = (state: EditorState) => {
  const found = tableAt(state);
  return found && [found.row, found.column];
};

test('a text with a table is the same in the editor; every place of it is found again', () => {
  const doc = docOfBlocks(TEXT);
  expect(blocksOf(doc)).toEqual(TEXT);
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true;
    for (let offset = 0; offset <= node.content.size; offset++) {
      const place = placeOf(doc.resolve(position + 1 + offset));
      expect(place.offset).toBe(offset);
      expect(positionOf(doc, place)).toBe(position + 1 + offset);
    }
    return false;
  });
});

test.each([
  [
    'a row above',
    addRow(0),
    [
      ['', ''],
      ['Place', 'Height'],
      ['Quay', '2.10 m'],
    ],
    [0, 1],
  ],
  [
    'a row below',
    addRow(1),
    [
      ['Place', 'Height'],
      ['', ''],
      ['Quay', '2.10 m'],
    ],
    [1, 1],
  ],
  [
    'a column before',
    addColumn(0),
    [
      ['Place', '', 'Height'],
      ['Quay', '', '2.10 m'],
    ],
    [0, 1],
  ],
  [
    'a column behind',
    addColumn(1),
    [
      ['Place', 'Height', ''],
      ['Quay', '2.10 m', ''],
    ],
    [0, 2],
  ],
  ['no row', removeRow, [['Quay', '2.10 m']], [0, 1]],
  ['no column', removeColumn, [['Place'], ['Quay']], [0, 0]],
  ['no table', removeTable, [], undefined],
] as const)('%s', (_, command, rows, place) => {
  const state = after(at([0, 1, 2]), command);
  expect(rowsOf(state)).toEqual(rows);
  expect(placeIn(state)).toEqual(place);
  state.doc.check();
});

test('a row is aligned as the one it was made beside; the first row may be one as all others', () => {
  const [, made] = blocksOf(after(at([0, 0, 0]), addRow(1)).doc);
  expect(made.kind === 'table' && made.rows[1].map(({ align }) => align)).toEqual([
    undefined,
    'end',
  ]);
  const [, plain] = blocksOf(after(at([0, 0, 0]), toggleHead).doc);
  expect(plain).toEqual({ ...table, hasHead: false });
});

test('from cell to cell as one reads, and on into a new row', () => {
  let state = at([0, 0, 0]);
  const places = [0, 1, 2, 3].map(() => placeIn((state = after(state, goToCell(1)))));
  expect(places).toEqual([
    [0, 1],
    [1, 0],
    [1, 1],
    [2, 0],
  ]);
  expect(rowsOf(state)).toHaveLength(3);
  expect(placeIn(after(state, goToCell(-1)))).toEqual([1, 1]);
  expect(placeIn(after(at([0, 0, 2]), goToCell(-1)))).toEqual([0, 0]);
});

test('what is selected over cells is emptied, and the table stays', () => {
  const state = after(at([0, 0, 2], [1, 0, 3]), emptyCells);
  expect(rowsOf(state)).toEqual([
    ['Pl', ''],
    ['y', '2.10 m'],
  ]);
  expect(emptyCells(at([0, 0, 1], [0, 0, 3]))).toBe(false);
  expect(stayInCell('start')(at([1, 0, 0]))).toBe(true);
  expect(stayInCell('start')(at([1, 0, 1]))).toBe(false);
  expect(stayInCell('end')(at([1, 0, 4]))).toBe(true);
});

test('a table is put in behind a paragraph, none into a table; words can follow it', () => {
  const doc = docOfBlocks([words('Last', 'last')]);
  const state = EditorState.create({ doc, selection: TextSelection.create(doc, 2) });
  const with3 = after(state, putTable);
  expect(blocksOf(with3.doc).map(({ kind }) => kind)).toEqual(['paragraph', 'table', 'paragraph']);
  expect(rowsOf(with3)).toEqual(Array.from({ length: 3 }, () => ['', '', '']));
  expect(placeIn(with3)).toEqual([0, 0]);
  expect(putTable(with3)).toBe(false);
});

test('no changes of rows and columns break the text, and cells that stay have their words', () => {
  const commands = [
    addRow(0),
    addRow(1),
    addColumn(0),
    addColumn(1),
    goToCell(1),
    goToCell(-1),
    removeRow,
    removeColumn,
  ];
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...commands), { maxLength: 20 }), (list) => {
      let state = at([1, 1, 0]);
      for (const command of list) state = after(state, command);
      state.doc.check();
      const left = rowsOf(state).flat().filter(Boolean);
      expect(['Place', 'Height', 'Quay', '2.10 m'].filter((text) => left.includes(text))).toEqual(
        left,
      );
      expect(docOfBlocks(blocksOf(state.doc)).eq(state.doc)).toBe(true);
    }),
  );
});

test('what a paragraph is and which one it is stay when it is aligned; a cell is aligned too, and is no heading', () => {
  const heading: Block = {
    kind: 'paragraph',
    id: 'head',
    role: 'heading1',
    runs: [{ text: 'Log' }],
  };
  const doc = docOfBlocks([heading, table]);
  const all = EditorState.create({
    doc,
    selection: TextSelection.create(doc, 1, doc.content.size - 5),
  });
  const aligned = after(
    all,
    setParagraphs((look) => ({ ...look, align: 'center' })),
  );
  const [head, cells] = blocksOf(aligned.doc);
  expect(head).toEqual({ ...heading, align: 'center' });
  expect(cells.kind === 'table' && cells.rows[0].map(({ align }) => align)).toEqual([
    'center',
    'center',
  ]);
  const [, same] = blocksOf(after(all, setRole('heading2')).doc);
  expect(same).toEqual(table);
});
