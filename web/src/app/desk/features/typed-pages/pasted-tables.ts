import { alignmentCalled } from '@stylet/core/typed-pages';
import { DOMParser, type ParseRule } from 'prosemirror-model';
import { schema } from '../../platform/typed/rich-model';

const isHeadRow = (row: Element | null): boolean =>
  row !== null &&
  row.children.length > 0 &&
  [...row.children].every(({ tagName }) => tagName === 'TH');

const tableRules: readonly ParseRule[] = [
  {
    tag: 'table',
    node: 'table',
    getAttrs: (element) => ({ hasHead: isHeadRow(element.querySelector('tr')) }),
  },
  { tag: 'tr', node: 'row' },
  ...['td', 'th'].map((tag) => ({
    tag,
    node: 'cell',
    getAttrs: (element: HTMLElement) => ({
      align:
        alignmentCalled(element.style.textAlign) ??
        alignmentCalled(element.getAttribute('align')) ??
        null,
    }),
  })),
];

/** Reads what is pasted into the text of pages: tables are tables there, which boxes have none of. */
export const pagesParser = new DOMParser(schema, [
  ...tableRules,
  ...DOMParser.fromSchema(schema).rules,
]);
