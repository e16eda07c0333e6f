import { idSchema } from '@stylet/core/document';
import { z } from 'zod';

/** How panes lie. */
export const flows = ['beside', 'above', 'square'] as const;
export type Flow = (typeof flows)[number];

/** What a pane tells the window it is in. */
export const paneMessageSchema = z.discriminatedUnion('stylet', [
  /** Which document it shows. */
  z.object({ stylet: z.literal('shows'), id: idSchema }),
  z.object({ stylet: z.literal('focused') }),
  z.object({ stylet: z.literal('closed') }),
  /** A document is to be shown in a pane of its own. */
  z.object({ stylet: z.literal('beside'), id: idSchema, flow: z.enum(['beside', 'above']) }),
  z.object({ stylet: z.literal('flow'), flow: z.enum(flows) }),
  /** A companion leads back to the page it was written beside. */
  z.object({ stylet: z.literal('goTo'), documentId: idSchema, pageId: idSchema }),
]);

/** What a companion is told of the desk it lies on: the page that is looked at. */
export const hostMessageSchema = z.object({
  stylet: z.literal('host'),
  documentId: idSchema,
  pageId: idSchema,
});
export type HostMessage = z.infer<typeof hostMessageSchema>;

export type PaneMessage = z.infer<typeof paneMessageSchema>;
