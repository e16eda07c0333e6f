import type { Annotation } from '@stylet/core/document';

/** What a page shows instead of annotations that are being erased or changed. */
export interface Remains {
  readonly gone: ReadonlyMap<string, Annotation>;
  readonly left: readonly Annotation[];
}

export const nothingErased: Remains = { gone: new Map(), left: [] };
