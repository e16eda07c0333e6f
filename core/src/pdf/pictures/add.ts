import { unzlibSync } from 'fflate';
import { compose, pageView, type Matrix } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import {
  Copier,
  PdfDict,
  PdfStream,
  PdfSyntaxError,
  WrittenObject,
  bytesOf,
  joinBytes,
  name,
  nameText,
  serialize,
  serializeNumber,
  type PdfFile,
  type PdfObjects,
  type PdfRef,
  type PdfValue,
} from '../objects/index';
import { readPages, userToPage, type PdfPage } from '../pages';
import { uprightMap } from './orientation';
import type { PreparedImage, PreparedPicture } from './prepared';

/** The name of the image or page in a picture's form. */
export const PICTURE = 'Picture';
/** The name of a picture's form in that which draws it in one colour. */
export const TINTED = 'Tinted';

/**
 * Adds a picture to a file as a form (ISO 32000-1, 8.10) that fills the unit square, origin at the
 * picture's top left and y down. Throws PdfSyntaxError for a page that cannot be read.
 */
export function addPicture(to: PdfObjects, picture: PreparedPicture): PdfRef {
  if (picture.kind === 'page') {
    const page = readPages(picture.file).at(0);
    if (!page) throw new PdfSyntaxError('a picture’s file has no page');
    return addUnitForm(to, addPageForm(to, picture.file, page), shownMap(page));
  }
  return addUnitForm(to, addImage(to, picture.image), uprightMap(picture.orientation));
}

function addUnitForm(to: PdfObjects, object: PdfRef, matrix: Matrix): PdfRef {
  const dict = PdfDict.of({
    Type: name('XObject'),
    Subtype: name('Form'),
    BBox: [0, 0, 1, 1],
    // One group: where it shows through, it does so as a whole (11.6.6).
    Group: PdfDict.of({ S: name('Transparency'), CS: name('DeviceRGB'), I: true }),
    Resources: PdfDict.of({ XObject: PdfDict.of({ [PICTURE]: object }) }),
  });
  const content = `q ${matrix.map(serializeNumber).join(' ')} cm /${PICTURE} Do Q`;
  return to.addStream(dict, bytesOf(content));
}

/**
 * Adds what draws a picture's form in one colour, as opaque as the picture is at each point: it is the soft mask of a square of
 * that colour (11.6.5.2, table 144: `Alpha`).
 */
export function addTinted(to: PdfObjects, form: PdfRef, tint: string): PdfRef {
  const mask = PdfDict.of({ Type: name('Mask'), S: name('Alpha'), G: form });
  const dict = PdfDict.of({
    Type: name('XObject'),
    Subtype: name('Form'),
    BBox: [0, 0, 1, 1],
    Group: PdfDict.of({ S: name('Transparency'), CS: name('DeviceRGB'), I: true }),
    Resources: PdfDict.of({
      ExtGState: PdfDict.of({ Mask: PdfDict.of({ Type: name('ExtGState'), SMask: mask }) }),
      // Not drawn by itself: where it is found when the file is read again.
      XObject: PdfDict.of({ [TINTED]: form }),
    }),
  });
  const color = rgbOf(tint).map(serializeNumber).join(' ');
  return to.addStream(dict, bytesOf(`/Mask gs ${color} rg 0 0 1 1 re f`));
}

function addImage(to: PdfObjects, image: PreparedImage): PdfRef {
  const mask = image.mask ? addImage(to, image.mask) : undefined;
  const dict = PdfDict.of({ ...image.entries, ...profileEntry(to, image), SMask: mask });
  const head = serialize(dict.with({ Length: image.bytes.length }));
  return to.add(
    new WrittenObject([bytesOf(`${head}\nstream\n`), image.bytes, bytesOf('\nendstream')]),
  );
}

/** A colour space with a profile (8.6.5.5); those that do not know it go by the device's. */
function profileEntry(
  to: PdfObjects,
  { profile, entries }: PreparedImage,
): Record<string, PdfValue> {
  if (!profile) return {};
  const dict = PdfDict.of({ N: profile.components, Alternate: entries['ColorSpace'] });
  return { ColorSpace: [name('ICCBased'), to.addStream(dict, profile.bytes)] };
}

/** From a page's default user space to the unit square in which it is shown upright. */
function shownMap({ box, rotation }: PdfPage): Matrix {
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const isSideways = rotation % 180 !== 0;
  const [w, h] = isSideways ? [height, width] : [width, height];
  const shown = compose(userToPage(box), pageView(width, height, rotation, 1));
  return compose(shown, [1 / w, 0, 0, 1 / h, 0, 0]);
}

/** What draws a picture, as `shownIn` finds it in a file that has it. */
export function shownBy(picture: PreparedPicture): Uint8Array {
  if (picture.kind === 'page') {
    const page = readPages(picture.file).at(0);
    if (!page) throw new PdfSyntaxError('a picture’s file has no page');
    return contentsOf(picture.file, page);
  }
  const { entries, bytes } = picture.image;
  return nameText(entries['Filter']) === 'DCTDecode' ? bytes : unzlibSync(bytes);
}

/** A page's contents and what they need, as a form in its default user space. */
function addPageForm(to: PdfObjects, file: PdfFile, page: PdfPage): PdfRef {
  const copier = new Copier(file, to);
  const { x0, y0, x1, y1 } = page.box;
  const group = file.dict(page.dict.get('Group'));
  const dict = PdfDict.of({
    Type: name('XObject'),
    Subtype: name('Form'),
    BBox: [x0, y0, x1, y1],
    Resources: copier.copy(file.dict(page.resources) ?? new PdfDict()),
    ...(group ? { Group: copier.copy(group) } : {}),
  });
  return to.addStream(dict, contentsOf(file, page));
}

/** All of a page's contents in one; parts end where tokens do (7.8.2). */
function contentsOf(file: PdfFile, page: PdfPage): Uint8Array {
  return joinBytes(
    contentStreams(file, page).flatMap((stream) => [file.decode(stream), bytesOf('\n')]),
  );
}

/** The streams of a page's contents (7.8.2), in order. */
export function contentStreams(file: PdfFile, page: PdfPage): PdfStream[] {
  const contents = file.resolve(page.dict.get('Contents'));
  const values: PdfValue[] = Array.isArray(contents) ? contents : [contents];
  return values.flatMap((value) => {
    const stream = file.resolve(value);
    return stream instanceof PdfStream ? [stream] : [];
  });
}
