import {
  PdfRef,
  PdfStream,
  nameText,
  numberOr,
  type Deflate,
  type PdfDict,
  type PdfFile,
} from '../objects/index';
import { PICTURE, TINTED } from './add';
import { formAsPdf } from './one-page';
import type { Pixels } from './prepared';

/** A picture as it is found in a file Stylet has written. */
export type EmbeddedPicture =
  | { readonly kind: 'file'; readonly bytes: Uint8Array }
  | { readonly kind: 'pixels'; readonly pixels: Pixels }
  | { readonly kind: 'page'; readonly bytes: Uint8Array };

/**
 * The picture in an object that Stylet wrote: an annotation with an appearance, a picture's form, or a file inside the file
 * (7.11.4); undefined if there is none.
 */
export function embeddedPicture(
  file: PdfFile,
  from: PdfRef,
  deflate?: Deflate,
): EmbeddedPicture | undefined {
  const stream = file.resolve(from);
  if (stream instanceof PdfStream && isCalled(file, stream.dict, 'Type', 'EmbeddedFile'))
    return { kind: 'file', bytes: file.decode(stream) };
  const dict = file.dict(from);
  const isForm = dict !== undefined && isCalled(file, dict, 'Subtype', 'Form');
  const appearance = file.dict(file.dict(dict?.get('AP') ?? null)?.get('N') ?? null);
  const found = inForm(file, isForm ? from : firstObject(file, appearance));
  if (!found) return undefined;
  const { ref, object } = found;
  if (isCalled(file, object.dict, 'Subtype', 'Form'))
    return { kind: 'page', bytes: formAsPdf(file, ref, deflate) };
  if (isCalled(file, object.dict, 'Filter', 'DCTDecode'))
    return { kind: 'file', bytes: object.raw() };
  return { kind: 'pixels', pixels: pixelsOf(file, object) };
}

/** What draws the picture of a form that `addPicture` has made; undefined where there is nothing like that any more. */
export function shownIn(file: PdfFile, form: PdfRef): Uint8Array | undefined {
  const object = inForm(file, form)?.object;
  if (!object) return undefined;
  return isCalled(file, object.dict, 'Filter', 'DCTDecode') ? object.raw() : file.decode(object);
}

function inForm(
  file: PdfFile,
  form: PdfRef | undefined,
): { readonly ref: PdfRef; readonly object: PdfStream } | undefined {
  const plain = form && (firstObject(file, file.dict(form), TINTED) ?? form);
  const ref = plain && firstObject(file, file.dict(plain), PICTURE);
  const object = ref && file.resolve(ref);
  return ref && object instanceof PdfStream ? { ref, object } : undefined;
}

const isCalled = (file: PdfFile, dict: PdfDict, key: string, called: string): boolean =>
  nameText(file.resolve(dict.get(key))) === called;

function firstObject(file: PdfFile, form: PdfDict | undefined, key?: string): PdfRef | undefined {
  const objects = file.dict(file.dict(form?.get('Resources') ?? null)?.get('XObject') ?? null);
  const value = key ? objects?.get(key) : objects?.entries.values().next().value;
  return value instanceof PdfRef ? value : undefined;
}

function pixelsOf(file: PdfFile, image: PdfStream): Pixels {
  const mask = file.resolve(image.dict.get('SMask'));
  const isGrey = nameText(file.resolve(image.dict.get('ColorSpace'))) === 'DeviceGray';
  return {
    width: numberOr(file.resolve(image.dict.get('Width'))) ?? 0,
    height: numberOr(file.resolve(image.dict.get('Height'))) ?? 0,
    components: isGrey ? 1 : 3,
    samples: file.decode(image),
    ...(mask instanceof PdfStream ? { alpha: file.decode(mask) } : {}),
  };
}
