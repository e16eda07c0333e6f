import { z } from 'zod';
import { count } from '../bounds/index';

/** What there is to say about a file that was brought in. */
export const noticeKinds = [
  /** It is signed, so many times. */
  'signed',
  /** It was signed, and could only be read as a copy that no signature holds for. */
  'signature-lost',
  /** It asks for a password, which exports do not. */
  'protected',
  /** It is a portfolio: its pages only lead to the files inside. */
  'portfolio',
  /** It carries files. */
  'files-inside',
  /** Texts, numbers or dates of it could not be kept as they are. */
  'cleaned',
  /** Annotations of it could not be read. */
  'unreadable',
] as const;
export type NoticeKind = (typeof noticeKinds)[number];

/** `count`: how many; `level`: the changes that whoever certified it allows (ISO 32000-1, table 254, P). */
export const noticeSchema = z.object({
  kind: z.enum(noticeKinds),
  count,
  level: z.union([z.literal(1), z.literal(2), z.literal(3)]).optional(),
});
export type Notice = z.infer<typeof noticeSchema>;
