import type { Box } from '../../geometry/index';
import { transformBox } from '../../geometry/index';
import {
  Copier,
  NewPdf,
  PdfDict,
  bytesOf,
  name,
  type Deflate,
  type PdfFile,
  type PdfRef,
  type PdfValue,
} from '../objects/index';
import { pageToUser, type PdfPage } from '../pages';

const numbers = ({ x0, y0, x1, y1 }: Box): number[] => [x0, y0, x1, y1];

/**
 * Part of a page (page space) as a file of one page, on white paper or on none, drawn by the same lines and
 * letters. What is no content, such as links, is left out.
 */
export function onePagePdf(
  file: PdfFile,
  page: PdfPage,
  region: Box,
  deflate?: Deflate,
  on: 'white' | 'nothing' = 'white',
): Uint8Array {
  const to = new NewPdf(deflate);
  const copier = new Copier(file, to);
  const box = transformBox(pageToUser(page.box), region);
  const [x, y, w, h] = [box.x0, box.y0, box.x1 - box.x0, box.y1 - box.y0];
  const contents = file.resolve(page.dict.get('Contents'));
  const streams: PdfValue[] = Array.isArray(contents) ? contents : [page.dict.get('Contents')];
  const paper =
    on === 'white'
      ? [to.addStream(new PdfDict(), bytesOf(`q 1 g ${x} ${y} ${w} ${h} re f Q\n`))]
      : [];
  return oneWithPage(to, {
    MediaBox: numbers(box),
    Rotate: page.rotation,
    Contents: [...paper, ...streams.map((stream) => copier.copy(stream)).filter((s) => s !== null)],
    Resources: copier.copy(file.dict(page.resources) ?? new PdfDict()),
    ...groupOf(file, page, copier),
  });
}

/** A form (8.10) of a file as a file of one page that it fills. */
export function formAsPdf(file: PdfFile, form: PdfRef, deflate?: Deflate): Uint8Array {
  const to = new NewPdf(deflate);
  const box = file.dict(form)?.get('BBox') ?? null;
  return oneWithPage(to, {
    MediaBox: file.resolve(box),
    Contents: to.addStream(new PdfDict(), bytesOf('/Form Do')),
    Resources: PdfDict.of({ XObject: PdfDict.of({ Form: new Copier(file, to).copy(form) }) }),
  });
}

/** The group a page's contents are drawn in (11.4.7), with its colour space. */
function groupOf(file: PdfFile, page: PdfPage, copier: Copier): Record<string, PdfValue> {
  const group = file.dict(page.dict.get('Group'));
  return group ? { Group: copier.copy(group) } : {};
}

function oneWithPage(to: NewPdf, entries: Record<string, PdfValue>): Uint8Array {
  const pages = to.reserve();
  const page = to.add(PdfDict.of({ Type: name('Page'), Parent: pages, ...entries }));
  to.set(pages, PdfDict.of({ Type: name('Pages'), Kids: [page], Count: 1 }));
  return to.bytes(to.add(PdfDict.of({ Type: name('Catalog'), Pages: pages })));
}
