import { transformedFields, changed, type Annotation } from '../../document/index';
import { boundsOf, grow, type Box, type Point } from '../../geometry/index';
import { polygonBounds } from '../../ink/index';
import { areasOf } from '../../paint/index';
import { exportUpdate } from '../export';
import { bytesBehind } from '../joined-bytes';
import {
  NewPdf,
  PdfDict,
  PdfFile,
  bytesInMemory,
  name,
  type Inflate,
  type PdfRef,
  type PdfValue,
} from '../objects/index';
import { readPages } from '../pages';
import { onePagePdf } from '../pictures/index';
import type { WrittenAnnotations } from '../annotations/written';

/** What is left free round a drawing, in points: soft edges are wider than outlines. */
const ROUND = 0.5;

/**
 * A drawing as a file of one page that is just as large, on no paper: annotations (page space) as they look. Throws RangeError
 * where they show nothing. `written` has to have the pictures and the fonts that they need.
 */
export function drawingPdf(
  annotations: readonly Annotation[],
  written: WrittenAnnotations,
  inflate?: Inflate,
): Uint8Array {
  const drawn = annotations.filter(isDrawn);
  const covered = boxAround(drawn);
  if (!covered) throw new RangeError('nothing is drawn');
  const box = grow(covered, ROUND);
  const placed = drawn.map((annotation) => {
    const { origin: _origin, ...rest } = annotation;
    const moved = transformedFields(annotation, [1, 0, 0, 1, -box.x0, -box.y0]);
    return changed({ ...rest, pageId: PAGE } as Annotation, moved ?? {});
  });
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const blank = blankPdf(width, height);
  const file = new PdfFile(bytesInMemory(blank), inflate);
  const page = {
    id: PAGE,
    source: '',
    sourceIndex: 0,
    rotation: 0,
    label: '',
    annotations: Object.fromEntries(placed.map((one) => [one.id, one])),
  } as const;
  const how = { mode: 'flattened', keepsNotes: false } as const;
  const { bytes } = exportUpdate(file, readPages(file), [page], how, undefined, written);
  const whole = new PdfFile(bytesBehind(bytesInMemory(blank), bytes), inflate);
  const region: Box = { x0: 0, y0: 0, x1: width, y1: height };
  return onePagePdf(whole, readPages(whole)[0], region, written.deflate, 'nothing');
}

const PAGE = 'drawing';

/** Links show nothing, notes are marks of the desk, and what other programs made is drawn by their files. */
const isDrawn = ({ kind }: Annotation): boolean =>
  kind !== 'link' && kind !== 'note' && kind !== 'reply' && kind !== 'foreign';

function boxAround(annotations: readonly Annotation[]): Box | undefined {
  const corners = annotations.flatMap((annotation): Point[] => {
    const box = boundsOf(
      areasOf(annotation).flatMap((polygon): Point[] => {
        const b = polygonBounds([polygon]);
        return b
          ? [
              { x: b.x0, y: b.y0 },
              { x: b.x1, y: b.y1 },
            ]
          : [];
      }),
    );
    return box
      ? [
          { x: box.x0, y: box.y0 },
          { x: box.x1, y: box.y1 },
        ]
      : [];
  });
  return boundsOf(corners);
}

function blankPdf(width: number, height: number): Uint8Array {
  const to = new NewPdf();
  const pages = to.reserve();
  return to.bytes(pageTree(to, pages, [blankPage(to, pages, width, height)]));
}

const blankPage = (to: NewPdf, parent: PdfRef, width: number, height: number): PdfRef =>
  to.add(
    PdfDict.of({
      Type: name('Page'),
      Parent: parent,
      MediaBox: [0, 0, width, height],
      Resources: new PdfDict(),
    }),
  );

/** Sets the page tree under its reserved number; the catalogue comes back. */
export function pageTree(
  to: NewPdf,
  tree: PdfRef,
  pages: readonly PdfRef[],
  more: Record<string, PdfValue> = {},
): PdfRef {
  to.set(tree, PdfDict.of({ Type: name('Pages'), Kids: [...pages], Count: pages.length }));
  return to.add(PdfDict.of({ Type: name('Catalog'), Pages: tree, ...more }));
}
