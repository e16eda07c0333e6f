import { embeddedFiles } from '../attachments';
import { PdfDict, PdfString, bytesOf, type PdfValue } from '../objects/index';
import type { Joining, SourceFile } from './source-file';

/**
 * The catalogue's names (ISO 32000-1, 7.7.4) with the files that the files of joined pages carry; nothing where they
 * carry none. A name that is there already gets a number.
 */
export function joinAttachments(
  base: SourceFile,
  joining: readonly Joining[],
): Record<string, PdfValue> {
  const all = embeddedFiles(base.file);
  const before = all.size;
  for (const { file, copier } of joining)
    for (const [key, value] of embeddedFiles(file)) {
      let own = key;
      for (let i = 2; all.has(own); i++) own = `${key} (${i})`;
      all.set(own, copier.copy(value));
    }
  if (all.size === before) return {};
  const sorted = [...all].sort(([a], [b]) => (a < b ? -1 : 1));
  const names = base.file.dict(base.file.catalog.get('Names')) ?? new PdfDict();
  const tree = PdfDict.of({
    Names: sorted.flatMap(([key, value]) => [new PdfString(bytesOf(key)), value]),
  });
  return { Names: names.with({ EmbeddedFiles: tree }) };
}
