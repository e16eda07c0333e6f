import type { Owner } from '../../typed-pages/index';
import { levelOf, type Block, type TextParagraph } from '../../typed-pages/index';
import type { PdfRef } from '../objects/index';
import { PdfDict, name, textString, type NewPdf, type PdfValue } from '../objects/index';

/** An element of the structure tree while it is put together. */
class Node {
  readonly kids: (Node | { readonly page: number; readonly mark: number })[] = [];
  ref!: PdfRef;

  constructor(
    readonly type: string,
    readonly attributes: Record<string, PdfValue> = {},
    /** What it shows, for those who do not see it (14.9.3). */
    readonly words?: string,
  ) {}

  add(type: string, attributes?: Record<string, PdfValue>, words?: string): Node {
    const child = new Node(type, attributes, words);
    this.kids.push(child);
    return child;
  }
}

/** Where in a paragraph marked content stands: its mark as an entry of a list, or its words. */
type Part = 'label' | 'words';

/** What the parts of a text are, for whoever reads it aloud, reflows or copies it (ISO 32000-1, 14.7 and 14.8). */
export class Structure {
  private readonly root = new Node('Document');
  private readonly nodes = new Map<string, Node>();
  /** The element of each piece of marked content, by page. */
  private readonly marks: Node[][] = [];

  constructor(blocks: readonly Block[]) {
    const lists: { readonly list: Node; entry: Node; readonly isNumbered: boolean }[] = [];
    blocks.forEach((block, i) => {
      if (block.kind === 'paragraph' && block.list) {
        const isNumbered = block.list === 'number';
        const depth = (block.indent ?? 0) + 1;
        lists.length = Math.min(lists.length, depth);
        const last = lists.at(-1);
        if (
          lists.length === depth &&
          last &&
          (last.isNumbered !== isNumbered || block.start !== undefined)
        )
          lists.pop();
        if (lists.length === 0 || lists.length < depth) {
          const within = lists.at(-1)?.entry ?? this.root;
          const numbering = name(isNumbered ? 'Decimal' : 'None');
          const list = within.add('L', { O: name('List'), ListNumbering: numbering });
          lists.push({ list, entry: list, isNumbered });
        }
        const open = lists[lists.length - 1];
        const entry = open.list.add('LI');
        this.nodes.set(keyOf({ block: i }, 'label'), entry.add('Lbl'));
        const body = entry.add('LBody');
        this.nodes.set(keyOf({ block: i }, 'words'), body);
        open.entry = body;
        return;
      }
      lists.length = 0;
      if (block.kind === 'picture') {
        const placement = { O: name('Layout'), Placement: name('Block') };
        const figure = this.root.add('Figure', placement, block.words);
        this.nodes.set(keyOf({ block: i }, 'words'), figure);
      } else if (block.kind === 'paragraph')
        this.nodes.set(keyOf({ block: i }, 'words'), this.paragraph(block));
      else if (block.kind === 'table') {
        const table = this.root.add('Table');
        block.rows.forEach((cells, row) => {
          const line = table.add('TR');
          const isHead = block.hasHead && row === 0;
          cells.forEach((_, column) => {
            const cell = isHead
              ? line.add('TH', { O: name('Table'), Scope: name('Column') })
              : line.add('TD');
            this.nodes.set(keyOf({ block: i, row, column }, 'words'), cell);
          });
        });
      }
    });
  }

  private paragraph({ role }: TextParagraph): Node {
    const level = levelOf(role);
    if (level !== undefined) return this.root.add(`H${level}`);
    if (role === 'quote') return this.root.add('BlockQuote').add('P');
    if (role === 'code') return this.root.add('P').add('Code');
    return this.root.add('P');
  }

  /** Operators of a part of a page, marked as what they are (14.6). */
  marked(page: number, owner: Owner | undefined, part: Part, operators: string): string {
    const node = owner && this.nodes.get(keyOf(owner, part));
    if (!node) return `/Artifact <</Type/Pagination>> BDC\n${operators}EMC\n`;
    const marks = (this.marks[page] ??= []);
    const mark = marks.push(node) - 1;
    // Its own words come before the lists under it.
    const lists = node.kids.findIndex((kid) => kid instanceof Node);
    node.kids.splice(lists < 0 ? node.kids.length : lists, 0, { page, mark });
    return `/${node.type} <</MCID ${mark}>> BDC\n${operators}EMC\n`;
  }

  /** Operators of a picture, whose box in user space is told (14.8.5.4.5). */
  figure(page: number, block: number, box: readonly number[], operators: string): string {
    this.nodes.get(keyOf({ block }, 'words'))!.attributes['BBox'] = [...box];
    return this.marked(page, { block }, 'words', operators);
  }

  /** Writes the tree; what the catalogue refers to as /StructTreeRoot. */
  write(pdf: NewPdf, pages: readonly PdfRef[]): PdfRef {
    const root = pdf.reserve();
    this.writeNode(pdf, this.root, root, pages);
    const numbers = this.marks.flatMap((marks, page): PdfValue[] => [
      page,
      pdf.add(marks.map(({ ref }) => ref)),
    ]);
    pdf.set(
      root,
      PdfDict.of({
        Type: name('StructTreeRoot'),
        K: this.root.ref,
        ParentTree: pdf.add(PdfDict.of({ Nums: numbers })),
        ParentTreeNextKey: pages.length,
      }),
    );
    return root;
  }

  /** `false` for an element that holds nothing and is left out. */
  private writeNode(pdf: NewPdf, node: Node, parent: PdfRef, pages: readonly PdfRef[]): boolean {
    node.ref = pdf.reserve();
    const kids = node.kids.flatMap((kid): PdfValue[] => {
      if (!(kid instanceof Node))
        return [PdfDict.of({ Type: name('MCR'), Pg: pages[kid.page], MCID: kid.mark })];
      return this.writeNode(pdf, kid, node.ref, pages) ? [kid.ref] : [];
    });
    const isCell = node.type === 'TD' || node.type === 'TH';
    if (kids.length === 0 && node !== this.root && !isCell) return false;
    const hasAttributes = Object.keys(node.attributes).length > 0;
    pdf.set(
      node.ref,
      PdfDict.of({
        Type: name('StructElem'),
        S: name(node.type),
        P: parent,
        K: kids,
        ...(node.words === undefined ? {} : { Alt: textString(node.words) }),
        ...(hasAttributes ? { A: PdfDict.of({ ...node.attributes }) } : {}),
      }),
    );
    return true;
  }
}

const keyOf = ({ block, row, column }: Owner, part: Part): string =>
  `${block} ${row ?? ''} ${column ?? ''} ${part}`;
