import { name, type Deflate, type PdfFile, type PdfValue } from '../objects/index';
import type { Orientation } from './orientation';

/** A picture as it goes into files: an image with its samples, or a page of another file. */
export type PreparedPicture =
  | { readonly kind: 'image'; readonly image: PreparedImage; readonly orientation: Orientation }
  | { readonly kind: 'page'; readonly file: PdfFile };

/** An image XObject (ISO 32000-1, 8.9.5): entries and encoded bytes, with those of its soft mask. */
export interface PreparedImage {
  readonly entries: Record<string, PdfValue>;
  readonly bytes: Uint8Array;
  readonly mask?: PreparedImage;
  /** What its colours mean (ICC.1), where they are not just those of the device. */
  readonly profile?: { readonly bytes: Uint8Array; readonly components: number };
}

/** What is known of a JPEG file; size in its own pixels. */
export interface JpegFacts {
  readonly width: number;
  readonly height: number;
  readonly components: 1 | 3 | 4;
  /** Its four inks are stored as light, as files with Adobe's marker do (common practice, no source). */
  readonly isInverted: boolean;
  /** Its colour profile, if it has one (ICC.1). */
  readonly profile?: Uint8Array;
}

const DEVICE_SPACES = { 1: 'DeviceGray', 3: 'DeviceRGB', 4: 'DeviceCMYK' } as const;

/** A JPEG file as an image: its bytes go in as they are (7.4.8). */
export function jpegImage(bytes: Uint8Array, facts: JpegFacts): PreparedImage {
  const { width, height, components, isInverted, profile } = facts;
  return {
    entries: {
      ...imageEntries(width, height),
      ColorSpace: name(DEVICE_SPACES[components]),
      Filter: name('DCTDecode'),
      ...(isInverted ? { Decode: [1, 0, 1, 0, 1, 0, 1, 0] } : {}),
    },
    bytes,
    ...(profile ? { profile: { bytes: profile, components } } : {}),
  };
}

/** Samples of 8 bits, row by row, with 1 (grey) or 3 (RGB) components, and an opacity for each pixel. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly components: 1 | 3;
  readonly samples: Uint8Array;
  readonly alpha?: Uint8Array;
}

/** Pixels as an image; what shows through is its soft mask (11.6.5.3). Compressed without loss. */
export function pixelImage(
  { width, height, components, samples, alpha }: Pixels,
  deflate: Deflate,
): PreparedImage {
  const plain = (bytes: Uint8Array, of: 1 | 3): PreparedImage => ({
    entries: {
      ...imageEntries(width, height),
      ColorSpace: name(DEVICE_SPACES[of]),
      Filter: name('FlateDecode'),
    },
    bytes: deflate(bytes),
  });
  return { ...plain(samples, components), ...(alpha ? { mask: plain(alpha, 1) } : {}) };
}

const imageEntries = (width: number, height: number): Record<string, PdfValue> => ({
  Type: name('XObject'),
  Subtype: name('Image'),
  Width: width,
  Height: height,
  BitsPerComponent: 8,
});
