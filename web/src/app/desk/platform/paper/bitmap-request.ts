import type { Page } from '@stylet/core/api';
import type { PageOfFile, PdfRequests } from '../../../../workers/protocol';
import type { PageWindow } from './page-window';

/** Which page of the file a page is, and how it is shown. */
export type SourcePage = Pick<Page, 'source' | 'sourceIndex' | 'rotation'>;

export type BitmapRequest = PdfRequests['render']['params'];

/** What the worker is asked for a window onto a page, with marks that are in the file. */
export function requestFor(
  sheet: PageOfFile,
  { rotation }: Pick<SourcePage, 'rotation'>,
  { x, y, width, height, scale }: PageWindow,
  marks: readonly number[] | undefined,
): BitmapRequest {
  return { ...sheet, rotation, scale, region: { x, y, width, height }, marks };
}
