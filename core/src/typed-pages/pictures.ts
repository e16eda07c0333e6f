import { base64 } from '@scure/base';
import { strToU8 } from 'fflate';
import type { PictureFacts } from '../document/index';
import { POINTS_PER_PIXEL } from '../pictures/index';
import type { PageSetup, TextPicture } from './text';

/** What is known of pictures, by where a text says that they are; undefined for those that cannot be had. */
export type PicturesNamed = (source: string) => PictureFacts | undefined;

/** How large a picture stands in the text, in points: as it is meant to be seen, no larger than there is room. */
export function sizeInText(
  { medium, width, height, wide }: TextPicture,
  room: { readonly width: number; readonly height: number },
): { readonly width: number; readonly height: number } {
  const own = width * (medium === 'pixels' ? POINTS_PER_PIXEL : 1);
  const shown = Math.min(wide ?? own, room.width, (room.height * width) / height);
  return { width: shown, height: (shown * height) / width };
}

/** The room between the margins of a page, in points. */
export const roomOf = ({ width, height, margins }: PageSetup) => ({
  width: Math.max(36, width - margins.left - margins.right),
  height: Math.max(36, height - margins.top - margins.bottom),
});

/** A picture that is written out in a text (RFC 2397). */
export interface WrittenOut {
  /** Where the text says now that it is. */
  readonly source: string;
  /** The bytes of its file; undefined where they are not written as they should be. */
  readonly bytes: () => Uint8Array | undefined;
}

const DATA = /data:image\/[a-z0-9.+-]+((?:;[a-z0-9=.-]+)*),([a-z0-9%+/=._~:@!$&*,;?-]+)/gi;

/**
 * A text without the pictures that are written out in it (RFC 2397), which are many times as long as its words: for each
 * there is a name that occurs nowhere else. `restored` gives back what was written where it was no picture after all.
 */
export function picturesTakenOut(text: string): {
  readonly text: string;
  readonly pictures: readonly WrittenOut[];
  readonly restored: (words: string) => string;
} {
  let folder = 'taken-out';
  while (text.includes(`${folder}/`)) folder += '-';
  const pictures: WrittenOut[] = [];
  const written = new Map<string, string>();
  const rest = text.replace(DATA, (whole, parameters: string, data: string) => {
    const source = `${folder}/${written.size}`;
    const isBase64 = parameters.toLowerCase().endsWith(';base64');
    pictures.push({ source, bytes: () => bytesOfData(data, isBase64) });
    written.set(source, whole);
    return source;
  });
  const names = new RegExp(`${folder}/\\d+`, 'g');
  return {
    text: rest,
    pictures,
    restored: (words) =>
      written.size === 0 ? words : words.replace(names, (name) => written.get(name) ?? name),
  };
}

function bytesOfData(data: string, isBase64: boolean): Uint8Array | undefined {
  try {
    const plain = decodeURIComponent(data);
    if (!isBase64) return strToU8(plain);
    const letters = plain.replace(/=+$/, '');
    return base64.decode(letters.padEnd(4 * Math.ceil(letters.length / 4), '='));
  } catch {
    // Escapes or letters that there are none of.
    return undefined;
  }
}

/** What pictures that came with a text are called in it: by the whole of their path, or its end where only one has that. */
export function picturesCalled(known: ReadonlyMap<string, PictureFacts>): PicturesNamed {
  const byEnd = new Map<string, PictureFacts | undefined>();
  for (const [path, facts] of known) {
    const end = endOf(path);
    byEnd.set(end, byEnd.has(end) ? undefined : facts);
  }
  return (source) => {
    const exact = known.get(source);
    if (exact) return exact;
    if (/^[a-z][a-z0-9+.-]*:|^\/\//i.test(source)) return undefined;
    const path = pathOf(source);
    return known.get(path) ?? byEnd.get(endOf(path));
  };
}

/** A reference to a file beside (RFC 3986, 4.2) as the path that it stands for. */
function pathOf(source: string): string {
  const plain = source.replace(/[?#].*$/, '').replace(/^(?:\.\/)+/, '');
  try {
    return decodeURIComponent(plain).normalize();
  } catch {
    return plain;
  }
}

const endOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
