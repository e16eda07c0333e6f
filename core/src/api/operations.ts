import { z } from 'zod';
import { count } from '../bounds/index';
import { documentPageSchema, idSchema, operationSchema } from '../document/index';

export const operationBatchSchema = z.object({
  operations: z.array(operationSchema).min(1).max(1000),
});

export const operationResultSchema = z.object({
  revision: count,
  /** The revision each operation got, in the order sent. */
  operations: z.array(z.object({ id: idSchema, revision: z.int().positive() })),
  /** Pages that were written on although somebody had removed them, and who: they can be added again. */
  removedPages: z.array(z.object({ page: documentPageSchema, by: z.string() })),
});

/** What was done to a document after a revision, in order; `revision` is the document's now. */
export const operationLogSchema = z.object({
  revision: count,
  operations: z.array(z.object({ operation: operationSchema, revision: z.int().positive() })),
});
export const operationLogQuerySchema = z.object({ since: z.coerce.number().pipe(count) });

export type OperationResult = z.infer<typeof operationResultSchema>;
export type OperationLog = z.infer<typeof operationLogSchema>;
