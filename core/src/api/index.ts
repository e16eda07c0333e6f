import { z } from 'zod';
import { coordinate, count, text } from '../bounds/index';
import {
  annotationSchema,
  digestSchema,
  documentPageSchema,
  idSchema,
  landmarkSchema,
} from '../document/index';
import { rulings } from '../paper/index';
import { exportModes } from '../pdf/index';
import { readingPlaceSchema } from './reading';
import { documentSummarySchema } from './summary';
import { namings } from './titles';

export const healthSchema = z.object({
  status: z.enum(['ok', 'degraded']),
  database: z.enum(['up', 'down']),
});

/** Where other devices of the network have a server. */
export const addressListSchema = z.object({ addresses: z.array(z.url()) });

/** Where a PDF goes that is brought in, and its document's id, if whoever brings it in has to know that before. */
export const bringInQuerySchema = z.object({
  id: idSchema.optional(),
  folder: idSchema.optional(),
  naming: z.enum(namings).default('better'),
});

/** A document that has just come, and the name it could have as well. */
export const broughtInSchema = documentSummarySchema.extend({ otherTitle: z.string().nullable() });
export type BroughtIn = z.infer<typeof broughtInSchema>;

/** Whether a document is in the trash. */
export const trashedSchema = z.object({ trashed: z.boolean() });

/** The notebook that is kept beside a document; null where there is none. */
export const companionSchema = z.object({ id: idSchema, title: z.string() }).nullable();
export type Companion = z.infer<typeof companionSchema>;

export const documentSchema = documentSummarySchema.extend({
  /** The digest of the document's own file, as it is worked on. */
  source: digestSchema,
  /** Whether it has typed pages, whose text can be edited. */
  isTyped: z.boolean().default(false),
  companion: companionSchema,
  /** In order. */
  pages: z.array(documentPageSchema),
  landmarks: z.array(landmarkSchema),
  /** Where its reader was last, on whatever device. */
  place: readingPlaceSchema.nullable(),
});

export const documentListSchema = z.object({ documents: z.array(documentSummarySchema) });

/** A PDF whose pages can be put into documents, and what it comes with. */
export const pageSupplySchema = z.object({
  source: digestSchema,
  title: z.string(),
  pages: z.array(documentPageSchema),
  landmarks: z.array(landmarkSchema),
  annotations: z.array(annotationSchema),
});

export const paperSchema = z.object({
  ruling: z.enum(rulings),
  /** Points. */
  width: z.number().min(36).max(14_400),
  height: z.number().min(36).max(14_400),
});

/** A document born from paper; `beside` a document whose companion it becomes. */
export const notebookSchema = z.object({
  /** Its id, if whoever makes it has to know that before. */
  id: idSchema.optional(),
  title: text(300).trim().min(1),
  paper: paperSchema,
  sheets: z.int().min(1).max(500),
  beside: idSchema.optional(),
});

export const companionChoiceSchema = z.object({ companionId: idSchema.nullable() });
export const companionAnswerSchema = z.object({ companion: companionSchema });

const flag = z.enum(['true', 'false']).transform((value) => value === 'true');

export const exportQuerySchema = z.object({
  annotations: z.enum(exportModes).default('editable'),
  /** Whether remarks stay as notes where annotations are drawn into the pages. */
  notes: flag.default(true),
  /** Whether a signature may be broken by it. */
  confirmed: flag.default(false),
});

/** What an export leaves out or breaks, in numbers; see the export dialog for the words. */
export const exportReportSchema = z.object({
  /** Annotations that are left out because they are hidden. */
  hidden: count,
  /** Notes and remarks whose words are left out. */
  notes: count,
  /** Annotations that carry files or sounds and are left out with them. */
  carried: count,
  /** Signatures that no longer hold, or that say that the file has been changed since. */
  signatures: count,
  /** Whether they are gone for good, because the export is a file of its own. */
  isLost: z.boolean(),
  /** Whether whoever certified the file does not allow this, or a signature is lost: it has to be confirmed. */
  isBreach: z.boolean(),
  /** Whether the original asks for a password, which this does not. */
  isUnprotected: z.boolean(),
});
export type ExportReport = z.infer<typeof exportReportSchema>;

/** Files inside a document. */
export const attachmentListSchema = z.object({
  files: z.array(
    z.object({
      index: count,
      name: z.string(),
      description: z.string(),
      /** Bytes, where it is known. */
      size: z.number().nullable(),
    }),
  ),
});
export type AttachmentFile = z.infer<typeof attachmentListSchema>['files'][number];

/** What kinds of files pictures are kept in; a page is a PDF of one. */
export const pictureTypes = ['jpeg', 'png', 'webp', 'svg', 'page'] as const;
export type PictureType = (typeof pictureTypes)[number];

/** Part of a page (page space) to be made a picture of, as it is drawn, with or without annotations. */
export const snipSchema = z.object({
  pageId: idSchema,
  region: z
    .object({ x0: coordinate, y0: coordinate, x1: coordinate, y1: coordinate })
    .refine(({ x0, y0, x1, y1 }) => x1 > x0 && y1 > y0, { error: 'the region is empty' }),
  annotations: z.boolean(),
});

export type SnipRequest = z.infer<typeof snipSchema>;
export { pictureFactsSchema, type Page, type PictureFacts } from '../document/index';
export type DocumentSummary = z.infer<typeof documentSummarySchema>;
export type StyletDocument = z.infer<typeof documentSchema>;
export type NotebookWanted = z.infer<typeof notebookSchema>;
export type PageSupplyBody = z.infer<typeof pageSupplySchema>;
export * from './problem';
export * from './annotations';
export * from './operations';
export * from './live';
export * from './presence';
export * from './kit';
export * from './find';
export * from './folders';
export * from './library';
export * from './summary';
export * from './text';
export * from './titles';
export * from './keywords';
export * from './reading';
export * from './dictionary';
export * from './speech';
