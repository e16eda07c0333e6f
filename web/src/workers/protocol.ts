import type { Line } from '@stylet/core/text';

/** Part of a shown page, in pixels of the wanted scale. */
export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What the PDF worker is asked. Pages are counted from 0. */
export interface Requests {
  open: { params: { url: string }; result: { pageCount: number } };
  render: {
    params: {
      page: number;
      /** Pixels a point. */
      scale: number;
      region: Region;
      /** Object numbers of the marks to draw from the file; all other marks are left out. */
      marks: readonly number[];
    };
    result: ImageBitmap;
  };
  lines: { params: { page: number }; result: Line[] };
  links: { params: { page: number }; result: PageLink[] };
}

/** A link on a page: its box in page space, and where it leads. */
export interface PageLink {
  readonly box: { x0: number; y0: number; x1: number; y1: number };
  readonly target:
    | { readonly kind: 'page'; readonly page: number; readonly x?: number; readonly y?: number }
    | { readonly kind: 'address'; readonly url: string };
}

export type RequestKind = keyof Requests;

export interface RequestMessage<K extends RequestKind = RequestKind> {
  readonly id: number;
  readonly kind: K;
  readonly params: Requests[K]['params'];
}

export interface CancelMessage {
  readonly cancel: number;
}

export type ReplyMessage =
  | { readonly id: number; readonly result: unknown }
  | { readonly id: number; readonly error: string; readonly cancelled: boolean };
