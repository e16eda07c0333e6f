import { keywordSchema, type Keyword } from '../../document/index';
import {
  PdfDict,
  pdfDate,
  textOf,
  textString,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import type { PdfPage } from '../pages';
import { PIECE } from './own-keys';

/** The keywords Stylet has written with a page. */
export function readKeywords(file: PdfFile, page: PdfPage, pageId: string): Keyword[] {
  const piece = file.dict(file.dict(page.dict.get('PieceInfo'))?.get(PIECE) ?? null);
  const own = file.dict(piece?.get('Private') ?? null);
  return file.array(own?.get('Keywords') ?? null).flatMap((value) => {
    let kept: unknown;
    try {
      kept = JSON.parse(textOf(file.resolve(value)));
    } catch {
      return []; // Cut by another program: there is nothing to go by.
    }
    if (typeof kept !== 'object' || kept === null || !('place' in kept)) return [];
    const place = { ...(kept.place as object), pageId };
    const parsed = keywordSchema.safeParse({ ...kept, kind: 'keyword', place });
    return parsed.success ? [parsed.data] : [];
  });
}

/**
 * Entries of a page's dictionary that keep its keywords as Stylet's own data (ISO 32000-1, 14.5); none
 * where the file has them already.
 */
export function keywordEntries(
  file: PdfFile,
  page: PdfPage,
  pageId: string,
  keywords: readonly Keyword[],
): Record<string, PdfValue> {
  const before = readKeywords(file, page, pageId).map(written).sort();
  const now = keywords.map(written).sort();
  if (before.join('\n') === now.join('\n')) return {};
  const pieces = file.dict(page.dict.get('PieceInfo')) ?? new PdfDict();
  if (keywords.length === 0) return { PieceInfo: pieces.with({ [PIECE]: null }) };
  const modified = pdfDate(
    keywords
      .map(({ created }) => created)
      .sort()
      .at(-1)!,
  );
  const piece = PdfDict.of({
    LastModified: modified,
    Private: PdfDict.of({ Keywords: now.map(textString) }),
  });
  return { PieceInfo: pieces.with({ [PIECE]: piece }), LastModified: modified };
}

function written({ kind: _, place, ...keyword }: Keyword): string {
  const { pageId: _page, ...at } = place;
  return JSON.stringify({ ...keyword, place: at });
}
