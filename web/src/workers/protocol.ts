import type { FindQuery, TextLayer } from '@stylet/core/find';
import type { Box } from '@stylet/core/geometry';
import type { Rotation } from '@stylet/core/pdf';
import type { Line, LookedPage, PictureCorners } from '@stylet/core/text';

/** Part of a shown page, in pixels of the wanted scale. */
export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A page of a file: where the file is, and which of its pages, counted from 0. */
export interface PageOfFile {
  readonly url: string;
  readonly page: number;
}

/** What the PDF worker is asked. */
export interface PdfRequests {
  open: { params: { url: string }; result: { pageCount: number } };
  render: {
    params: PageOfFile & {
      /** How it is shown, in degrees clockwise. */
      rotation: Rotation;
      /** Pixels a point. */
      scale: number;
      region: Region;
      /** Object numbers of the marks to draw from the file; none where the page never had any. */
      marks: readonly number[] | undefined;
    };
    result: ImageBitmap;
  };
  lines: { params: PageOfFile; result: Line[] };
  /** Where a page draws pictures, other than the one that is its paper. */
  pictures: { params: PageOfFile; result: PictureCorners[] };
  links: { params: PageOfFile; result: PageLink[] };
  /** How a page's lines look. */
  looks: { params: PageOfFile & { rotation: Rotation }; result: LookedPage };
  /** What is found on a page; `source` is its file's digest. */
  find: { params: PageOfFile & { source: string; query: FindQuery }; result: FoundMatch[] };
}

/** A match on a page: what it touches, in page space, and what stands around it. */
export interface FoundMatch {
  readonly kind: TextLayer;
  readonly boxes: readonly Box[];
  readonly before: string;
  readonly match: string;
  readonly after: string;
}

/** A link on a page: its box in page space, and where it leads. */
export interface PageLink {
  readonly box: { x0: number; y0: number; x1: number; y1: number };
  readonly target:
    | { readonly kind: 'page'; readonly page: number; readonly x?: number; readonly y?: number }
    | { readonly kind: 'address'; readonly url: string }
    | {
        readonly kind: 'document';
        readonly id: string;
        readonly title: string;
        readonly page: number;
      };
  /** The object it is in the file, if it is one of its own. */
  readonly origin?: { readonly object: number; readonly generation: number };
  /** The id of its annotation, if it was made here. */
  readonly own?: string;
}

/** What the worker for pictures is asked. */
export interface PictureRequests {
  /** Reads a picture of pixels that has just come: its digest and all its pixels, upright. */
  read: {
    params: { file: Blob };
    result: { digest: string; bitmap: ImageBitmap } | undefined;
  };
  /** The pixels of a picture's file, upright, at most so many across. */
  decode: { params: { file: Blob; width: number }; result: ImageBitmap };
  /** The first page of a PDF, so many pixels across; clear where nothing is drawn. */
  draw: { params: { file: Blob; width: number }; result: ImageBitmap };
}

/** An answer to each kind of question; `id` names the request. */
export type Handlers<R> = {
  [K in keyof R]: R[K] extends { params: infer P; result: infer A }
    ? (params: P, id: number) => Promise<A>
    : never;
};

export interface RequestMessage {
  readonly id: number;
  readonly kind: string;
  readonly params: unknown;
}

export interface CancelMessage {
  readonly cancel: number;
}

export type ReplyMessage =
  | { readonly id: number; readonly result: unknown }
  | { readonly id: number; readonly error: string; readonly cancelled: boolean };
