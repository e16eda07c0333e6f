import type { Annotation } from '@stylet/core/document';
import { samplesFromBase64 } from '@stylet/core/ink';
import type { annotations } from '../db/schema';

type Row = typeof annotations.$inferSelect;

/**
 * An annotation as a row: its samples as bytes, the rest as JSON. `revision` is the document's
 * since when it is so. Throws Problem `ink-samples-invalid` for ink that could not be read back.
 */
export function toRow(documentId: string, annotation: Annotation, revision: number): Row {
  const { id, pageId } = annotation;
  if (annotation.kind !== 'ink')
    return { documentId, id, pageId, fields: annotation, samples: null, revision };
  const { samples, ...fields } = annotation;
  samplesFromBase64(samples);
  return { documentId, id, pageId, fields, samples: Buffer.from(samples, 'base64'), revision };
}

/** The inverse of `toRow`. */
export function fromRow(row: Pick<Row, 'fields' | 'samples'>): Annotation {
  if (!row.samples) return row.fields as Annotation;
  return { ...row.fields, samples: row.samples.toString('base64') } as Annotation;
}
