/** How files of pixels begin: JPEG (ITU-T T.81, B.1.1.3), PNG (W3C PNG, 5.2), WebP (RFC 9649, 2.4). */
const BEGINNINGS: readonly (readonly (number | undefined)[])[] = [
  [0xff, 0xd8, 0xff],
  [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
  [...bytes('RIFF'), undefined, undefined, undefined, undefined, ...bytes('WEBP')],
];

/** Whether a file that begins with these bytes is a JPEG, PNG or WebP. */
export const isPictureOfPixels = (head: Uint8Array): boolean =>
  BEGINNINGS.some((beginning) =>
    beginning.every((byte, i) => byte === undefined || head[i] === byte),
  );

function bytes(text: string): number[] {
  return [...text].map((character) => character.charCodeAt(0));
}
