import type { Point } from '../../geometry/index';
import {
  NewPdf,
  PdfDict,
  bytesOf,
  name,
  serializeNumber,
  textString,
  type Deflate,
  type PdfRef,
} from '../objects/index';
import { labelTree } from '../labels';
import { addPicture, type PreparedPicture } from '../pictures/index';
import { pageTree } from './drawing';

/** A stamp as it goes onto a page of its own. */
export interface WrittenStamp {
  readonly name: string;
  readonly picture: PreparedPicture;
  /** By which a picture is known that several stamps are parts of. */
  readonly digest: string;
  /** What of its unit square is meant; the whole of it where it is left out. */
  readonly crop?: readonly Point[];
  /** The sides of what is meant, in points. */
  readonly size: { readonly width: number; readonly height: number };
}

/**
 * A sheet of stamps as a PDF: one stamp a page, just as large, on no paper; each named by an entry of the outline (ISO 32000-1,
 * 12.3.3) and by its page's label (12.4.2). Throws PdfSyntaxError for a picture whose page cannot be read.
 */
export function sheetPdf(
  title: string,
  stamps: readonly WrittenStamp[],
  deflate?: Deflate,
): Uint8Array {
  const to = new NewPdf(deflate);
  const tree = to.reserve();
  const pictures = new Map<string, PdfRef>();
  const pictureOf = ({ digest, picture }: WrittenStamp): PdfRef => {
    const known = pictures.get(digest) ?? addPicture(to, picture);
    pictures.set(digest, known);
    return known;
  };
  const pages = stamps.map((stamp) => addPage(to, tree, stamp, pictureOf(stamp)));
  const info = to.add(PdfDict.of({ Title: textString(title) }));
  const names = stamps.map((stamp) => stamp.name);
  const catalog = pageTree(to, tree, pages, {
    PageLabels: labelTree(names),
    ...(pages.length > 0
      ? { Outlines: addOutline(to, names, pages), PageMode: name('UseOutlines') }
      : {}),
  });
  return to.bytes(catalog, info);
}

function addPage(
  to: NewPdf,
  tree: PdfRef,
  { crop, size: { width, height } }: WrittenStamp,
  picture: PdfRef,
): PdfRef {
  const xs = crop?.map(({ x }) => x) ?? [0, 1];
  const ys = crop?.map(({ y }) => y) ?? [0, 1];
  const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
  const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
  const [a, d] = [width / (x1 - x0), height / (y1 - y0)];
  // The picture's square has y down.
  const toPage = ({ x, y }: Point): string =>
    [a * (x - x0), height - d * (y - y0)].map(serializeNumber).join(' ');
  const outline = crop?.map((p, i) => `${toPage(p)} ${i === 0 ? 'm' : 'l'}`).join(' ');
  const matrix = [a, 0, 0, -d, -a * x0, height + d * y0].map(serializeNumber).join(' ');
  const content = `q ${outline ? `${outline} W n ` : ''}${matrix} cm /Stamp Do Q`;
  return to.add(
    PdfDict.of({
      Type: name('Page'),
      Parent: tree,
      MediaBox: [0, 0, width, height],
      Resources: PdfDict.of({ XObject: PdfDict.of({ Stamp: picture }) }),
      Contents: to.addStream(new PdfDict(), bytesOf(content)),
    }),
  );
}

/** An outline of one level (tables 152 and 153). */
function addOutline(to: NewPdf, names: readonly string[], pages: readonly PdfRef[]): PdfRef {
  const outline = to.reserve();
  const items = names.map(() => to.reserve());
  items.forEach((item, i) =>
    to.set(
      item,
      PdfDict.of({
        Title: textString(names[i]),
        Parent: outline,
        Dest: [pages[i], name('Fit')],
        ...(i > 0 ? { Prev: items[i - 1] } : {}),
        ...(i + 1 < items.length ? { Next: items[i + 1] } : {}),
      }),
    ),
  );
  to.set(
    outline,
    PdfDict.of({
      Type: name('Outlines'),
      First: items[0],
      Last: items.at(-1)!,
      Count: items.length,
    }),
  );
  return outline;
}
