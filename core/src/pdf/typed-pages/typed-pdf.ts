import { toldParagraph, type FaceId } from '../../typed/index';
import {
  linksOn,
  type PageOfText,
  type PlacedPicture,
  type Portion,
  type TypedPages,
  type TypedText,
} from '../../typed-pages/index';
import type { Line } from '../../typesetting/index';
import { NewPdf, PdfDict, bytesOf, name, pdfDate, textString } from '../objects/index';
import type { Deflate, PdfRef } from '../objects/index';
import { linkAction } from '../annotations/link-entries';
import { UsedFaces } from '../type/used-faces';
import { textOperators, type UsedGlyphs } from '../type/text-operators';
import type { TypeTools } from '../type/type-tools';
import { writeHeadings } from './outline';
import { DrawnPictures, type TypedPicture } from './drawn-pictures';
import { Structure } from './structure';
import { withSource } from './source';

export interface TypedPdfFacts {
  readonly title: string;
  /** ISO 8601. */
  readonly now: string;
  /** Has the pictures of the text, by their digests. */
  readonly pictures?: (digest: string) => TypedPicture | undefined;
}

/**
 * A PDF of typed pages: their text as text, tagged as what its parts are (ISO 32000-1, 14.8), with headings as outline,
 * links, and the text itself as it is read back here. The same text gives the same bytes.
 */
export function typedPdf(
  text: TypedText,
  { pages, headings }: TypedPages,
  tools: TypeTools,
  { title, now, pictures = () => undefined }: TypedPdfFacts,
  deflate?: Deflate,
): Uint8Array {
  const pdf = new NewPdf(deflate);
  const [catalog, tree] = [pdf.reserve(), pdf.reserve()];
  const refs = pages.map(() => pdf.reserve());
  const structure = new Structure(text.blocks);
  const faces = new UsedFaces(
    pdf,
    tools,
    remembered(() => pdf.reserve()),
  );
  const drawn = new DrawnPictures(pdf, pictures);
  const contents = pages.map((page, i) => writePage(page, i));
  faces.write();
  const titled = headings.map((heading) => {
    const block = text.blocks[heading.block];
    const words = block.kind === 'paragraph' ? toldParagraph(block) : '';
    return { ...heading, title: words.replace(/\s+/g, ' ').trim() };
  });
  pdf.set(tree, PdfDict.of({ Type: name('Pages'), Kids: refs, Count: refs.length }));
  const outline = writeHeadings(
    pdf,
    titled.filter((heading) => heading.title !== ''),
    refs,
    text.setup.height,
  );
  pdf.set(
    catalog,
    PdfDict.of({
      Type: name('Catalog'),
      Pages: tree,
      ...(outline ? { Outlines: outline, PageMode: name('UseOutlines') } : {}),
      MarkInfo: PdfDict.of({ Marked: true }),
      StructTreeRoot: structure.write(pdf, refs),
      ViewerPreferences: PdfDict.of({ DisplayDocTitle: true }),
      PieceInfo: withSource(pdf, text, contents, drawn.sources(), now),
    }),
  );
  const info = pdf.add(PdfDict.of({ Title: textString(title), CreationDate: pdfDate(now) }));
  return pdf.bytes(catalog, info);

  function writePage(page: PageOfText, index: number): Uint8Array {
    const { width, height } = text.setup;
    const used: UsedGlyphs = new Map();
    const bytes = bytesOf(
      [
        ...page.pictures.map((picture) => pictureOperators(picture, index)),
        ...page.portions.map((portion) => portionOperators(portion, index, used)),
        rulesOperators(page),
      ].join(''),
    );
    const fonts: Record<FaceId, PdfRef> = {};
    for (const [face, glyphs] of used) fonts[face] = faces.use(face, glyphs);
    const links = linksOn(page).map(({ box, address }) =>
      pdf.add(
        PdfDict.of({
          Type: name('Annot'),
          Subtype: name('Link'),
          Rect: [box.x0, height - box.y1, box.x1, height - box.y0].map(rounded),
          Border: [0, 0, 0],
          A: linkAction({ address }),
        }),
      ),
    );
    pdf.set(
      refs[index],
      PdfDict.of({
        Type: name('Page'),
        Parent: tree,
        MediaBox: [0, 0, rounded(width), rounded(height)],
        Resources: PdfDict.of({ Font: PdfDict.of(fonts), ...drawn.resources(page) }),
        Contents: pdf.addStream(new PdfDict(), bytes),
        StructParents: index,
        Tabs: name('S'),
        ...(links.length > 0 ? { Annots: links } : {}),
      }),
    );
    return bytes;
  }

  function pictureOperators({ block, picture, box }: PlacedPicture, page: number): string {
    const { height } = text.setup;
    const [x, y, wide, high] = [box.x0, height - box.y0, box.x1 - box.x0, box.y1 - box.y0];
    const map = [wide, 0, 0, -high, x, y].map(rounded).join(' ');
    const shown = [x, y - high, x + wide, y].map(rounded);
    const operators = `q\n${map} cm\n/${drawn.nameOf(picture)} Do\nQ\n`;
    return structure.figure(page, block, shown, operators);
  }

  function portionOperators(
    { owner, lines, x, y }: Portion,
    page: number,
    used: UsedGlyphs,
  ): string {
    const written = (some: readonly Line[]): string =>
      textOperators(
        { lines: some, width: 0, height: 0 },
        tools,
        [1, 0, 0, -1, x, text.setup.height - y],
        used,
      );
    const labels = lines.flatMap((line) => (line.marker ? [{ ...line, runs: [] }] : []));
    const words = lines.map((line) => (line.marker ? { ...line, marker: undefined } : line));
    return (
      (labels.length > 0 ? structure.marked(page, owner, 'label', written(labels)) : '') +
      (words.some(({ runs }) => runs.length > 0)
        ? structure.marked(page, owner, 'words', written(words))
        : '')
    );
  }

  function rulesOperators({ rules }: PageOfText): string {
    if (rules.length === 0) return '';
    const boxes = rules.map(({ x0, y0, x1, y1 }) =>
      [x0, text.setup.height - y1, x1 - x0, y1 - y0].map(rounded).join(' '),
    );
    return `/Artifact BMC\n0.6 g\n${boxes.map((box) => `${box} re`).join('\n')}\nf\nEMC\n`;
  }
}

function remembered(make: () => PdfRef): (key: string) => PdfRef {
  const known = new Map<string, PdfRef>();
  return (key) => {
    const ref = known.get(key) ?? make();
    known.set(key, ref);
    return ref;
  };
}

const rounded = (value: number): number => Math.round(value * 1000) / 1000;
