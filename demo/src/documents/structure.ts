import type { PDFArray, PDFDict } from '@cantoo/pdf-lib';
import {
  PDFHexString,
  PDFName,
  PDFNull,
  PDFString,
  type PDFDocument,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';

/** An entry of an outline to be made: page by index, height from the page's bottom. */
export interface Heading {
  readonly title: string;
  readonly page: number;
  readonly top: number;
  readonly children?: readonly Heading[];
  /** Whether the children show at first. */
  readonly open?: boolean;
}

const destination = (doc: PDFDocument, page: number, top: number): PDFArray =>
  doc.context.obj([doc.getPage(page).ref, PDFName.of('XYZ'), PDFNull, top, PDFNull]) as PDFArray;

/** Gives a document an outline (ISO 32000-1, 12.3.3), its first level open. */
export function setOutline(doc: PDFDocument, headings: readonly Heading[]): void {
  const { context } = doc;
  const root = context.nextRef();
  const build = (list: readonly Heading[], parent: PDFRef): { refs: PDFRef[]; count: number } => {
    const refs = list.map(() => context.nextRef());
    list.forEach((heading, i) => {
      const entry = context.obj({
        Title: PDFHexString.fromText(heading.title),
        Parent: parent,
        Dest: destination(doc, heading.page, heading.top),
      }) as PDFDict;
      if (i > 0) entry.set(PDFName.of('Prev'), refs[i - 1]);
      if (i + 1 < refs.length) entry.set(PDFName.of('Next'), refs[i + 1]);
      if (heading.children && heading.children.length > 0) {
        const below = build(heading.children, refs[i]);
        entry.set(PDFName.of('First'), below.refs[0]);
        entry.set(PDFName.of('Last'), below.refs[below.refs.length - 1]);
        entry.set(
          PDFName.of('Count'),
          context.obj(heading.open ? below.refs.length : -below.refs.length),
        );
      }
      context.assign(refs[i], entry);
    });
    return { refs, count: list.length };
  };
  const { refs, count } = build(headings, root);
  context.assign(
    root,
    context.obj({ Type: 'Outlines', First: refs[0], Last: refs[refs.length - 1], Count: count }),
  );
  doc.catalog.set(PDFName.of('Outlines'), root);
  doc.catalog.set(PDFName.of('PageMode'), PDFName.of('UseOutlines'));
}

/** A range of page labels: from a page index on, in a numbering style of table 159. */
export interface LabelRange {
  readonly from: number;
  readonly style: 'D' | 'r' | 'A';
  readonly prefix?: string;
}

export function setLabels(doc: PDFDocument, ranges: readonly LabelRange[]): void {
  const numbers = doc.context.obj([]) as PDFArray;
  for (const { from, style, prefix } of ranges) {
    const rule = doc.context.obj({ S: style }) as PDFDict;
    if (prefix !== undefined) rule.set(PDFName.of('P'), PDFHexString.fromText(prefix));
    numbers.push(doc.context.obj(from));
    numbers.push(rule);
  }
  doc.catalog.set(PDFName.of('PageLabels'), doc.context.obj({ Nums: numbers }));
}

type Rectangle = readonly [number, number, number, number];

/** A link on a page to another page, or to a web address. */
export function addLink(
  doc: PDFDocument,
  page: PDFPage,
  rectangle: Rectangle,
  target: { page: number; top: number } | { url: string },
): void {
  const link = doc.context.obj({
    Type: 'Annot',
    Subtype: 'Link',
    Rect: [...rectangle],
    Border: [0, 0, 0],
  }) as PDFDict;
  if ('url' in target)
    link.set(PDFName.of('A'), doc.context.obj({ S: 'URI', URI: PDFString.of(target.url) }));
  else link.set(PDFName.of('Dest'), destination(doc, target.page, target.top));
  page.node.addAnnot(doc.context.register(link));
}
