import type { PictureType } from '@stylet/core/api';

/** What files of pictures are called (IANA, Media Types). */
export const mediaTypes: Readonly<Record<PictureType, string>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  svg: 'image/svg+xml',
  page: 'application/pdf',
};
