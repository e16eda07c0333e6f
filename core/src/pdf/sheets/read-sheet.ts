import { idsFor, newId, orderAbove, type Annotation, type Foreign } from '../../document/index';
import type { Box } from '../../geometry/index';
import { exportUpdate } from '../export';
import { bytesBehind } from '../joined-bytes';
import { PdfFile, type ByteSource, type Deflate, type Inflate } from '../objects/index';
import { readPages, type PdfPage } from '../pages';
import { onePagePdf } from '../pictures/index';
import { isHidden } from '../annotations/entries';
import { subtypeOf } from '../annotations/kinds';
import { marksOf } from '../annotations/read';
import { WrittenAnnotations } from '../annotations/written';
import type { ImportedPdf } from '../import';
import { takeIn, type TakenIn } from '../take-in';

/** A page of a file by itself. */
export interface PageAlone {
  /** By the outline, or else by its label; empty where it has neither. */
  readonly name: string;
  /** A PDF of it, with what is on it, on no paper. */
  readonly bytes: Uint8Array;
}

/** A file's pages by themselves, or what was wrong with it. */
export type ReadSheet =
  | {
      readonly outcome: 'read';
      readonly title: string | undefined;
      readonly pages: readonly PageAlone[];
      /** Whether there were more pages than were asked for. */
      readonly isMore: boolean;
    }
  | Exclude<TakenIn, { outcome: 'read' }>;

/**
 * Reads at most `most` pages of a file, each as a file of its own. What other programs put on them is drawn as it looks; notes
 * and links are no drawings.
 */
export function readSheet(
  bytes: ByteSource,
  most: number,
  { inflate, deflate }: { readonly inflate?: Inflate; readonly deflate: Deflate },
): ReadSheet {
  const now = new Date(0).toISOString();
  const taken = takeIn(bytes, { inflate, isMended: true, now, ids: idsFor(newId()) });
  if (taken.outcome !== 'read') return taken;
  const { pdf, tail } = taken;
  const some = pdf.pages.slice(0, most);
  const file = new PdfFile(tail.length > 0 ? bytesBehind(bytes, tail) : bytes, inflate);
  const inFile = readPages(file);
  const pages = some.map(({ id, index, rotation, label }) => ({
    id,
    source: '',
    sourceIndex: index,
    rotation,
    label: label ?? '',
    annotations: drawnOn(file, inFile[index], id),
  }));
  const how = { mode: 'flattened', keepsNotes: false } as const;
  const written = new WrittenAnnotations(deflate, () => undefined);
  const update = exportUpdate(file, inFile, pages, how, undefined, written);
  const whole = new PdfFile(bytesBehind(file.source, update.bytes), inflate);
  const names = namesIn(pdf);
  return {
    outcome: 'read',
    title: pdf.title,
    isMore: pdf.pages.length > some.length,
    pages: readPages(whole).map((page, i) => ({
      name: names.get(some[i].id) ?? some[i].label ?? '',
      bytes: onePagePdf(whole, page, wholeOf(page), deflate, 'nothing'),
    })),
  };
}

const wholeOf = ({ box }: PdfPage): Box => ({
  x0: 0,
  y0: 0,
  x1: box.x1 - box.x0,
  y1: box.y1 - box.y0,
});

/** The marks of a page that show on it, each by the appearance it has in the file. */
function drawnOn(file: PdfFile, page: PdfPage, pageId: string): Record<string, Annotation> {
  const now = new Date(0).toISOString();
  let order: string | undefined;
  const marks = marksOf(file, page).flatMap(({ ref, dict }): Foreign[] => {
    const subtype = subtypeOf(file, dict);
    if (subtype === 'Text' || isHidden(file, dict)) return [];
    order = orderAbove(order);
    return [
      {
        kind: 'foreign',
        id: newId(),
        pageId,
        order,
        opacity: 1,
        author: '',
        color: '#000000',
        created: now,
        modified: now,
        origin: { object: ref.object, generation: ref.generation, modified: now },
        subtype,
        contents: '',
        box: wholeOf(page),
      },
    ];
  });
  return Object.fromEntries(marks.map((mark) => [mark.id, mark]));
}

/** What entries of the outline call the pages they lead to, the first for each. */
function namesIn({ landmarks }: ImportedPdf): Map<string, string> {
  const names = new Map<string, string>();
  for (const landmark of landmarks)
    if (landmark.kind === 'outline' && landmark.place && !names.has(landmark.place.pageId))
      names.set(landmark.place.pageId, landmark.title);
  return names;
}
