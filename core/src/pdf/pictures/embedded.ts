import type { PdfDict } from '../objects/index';
import {
  PdfRef,
  PdfStream,
  nameText,
  numberOr,
  type Deflate,
  type PdfFile,
} from '../objects/index';
import { PICTURE } from './add';
import { formAsPdf } from './one-page';
import type { Pixels } from './prepared';

/** A picture as it is found in a file Stylet has written. */
export type EmbeddedPicture =
  | { readonly kind: 'jpeg'; readonly bytes: Uint8Array }
  | { readonly kind: 'pixels'; readonly pixels: Pixels }
  | { readonly kind: 'page'; readonly bytes: Uint8Array };

/** The picture in the appearance of an annotation that Stylet wrote; undefined if there is none. */
export function embeddedPicture(
  file: PdfFile,
  annotation: PdfDict,
  deflate?: Deflate,
): EmbeddedPicture | undefined {
  const appearance = file.dict(file.dict(annotation.get('AP'))?.get('N') ?? null);
  const unit = firstObject(file, appearance);
  const ref = unit && firstObject(file, file.dict(unit), PICTURE);
  const object = ref && file.resolve(ref);
  if (!ref || !(object instanceof PdfStream)) return undefined;
  if (nameText(file.resolve(object.dict.get('Subtype'))) === 'Form')
    return { kind: 'page', bytes: formAsPdf(file, ref, deflate) };
  if (nameText(file.resolve(object.dict.get('Filter'))) === 'DCTDecode')
    return { kind: 'jpeg', bytes: object.raw() };
  return { kind: 'pixels', pixels: pixelsOf(file, object) };
}

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
