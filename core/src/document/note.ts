import { z } from 'zod';
import { coordinate } from '../bounds/index';
import { bodySchema, plainText, usualLook, type Body, type Look } from '../typed/index';
import { common, idSchema, placed } from './common-fields';

/** What can be said of something in a review: the states of the standard's two models (ISO 32000-1, table 171). */
export const reviewStates = ['none', 'accepted', 'rejected', 'cancelled', 'completed'] as const;
export const markStates = ['marked', 'unmarked'] as const;
export const noteStates = [...reviewStates, ...markStates] as const;
export type NoteState = (typeof noteStates)[number];

/** What the words of notes look like where nothing else is said of them. */
export const noteLook: Look = { ...usualLook, font: 'inter', size: 10 };

/** Words at a place of a page, which open beside it. `at`: the middle of their mark, in page space. */
export const noteSchema = z.object({
  ...common,
  kind: z.literal('note'),
  at: z.object({ x: coordinate, y: coordinate }),
  paragraphs: bodySchema.shape.paragraphs,
});

/**
 * What somebody says to another annotation of the same page, or to a reply to it; or what they have set its state to, which
 * then are no words of theirs.
 */
export const replySchema = z.object({
  ...placed,
  kind: z.literal('reply'),
  to: idSchema,
  paragraphs: bodySchema.shape.paragraphs,
  state: z.enum(noteStates).optional(),
});

export type Note = z.infer<typeof noteSchema>;
export type Reply = z.infer<typeof replySchema>;

/** The words of a note or a reply with their looks. */
export const bodyOfNote = ({ paragraphs }: Pick<Note | Reply, 'paragraphs'>): Body => ({
  look: noteLook,
  paragraphs,
});

export const wordsOfNote = (note: Pick<Note | Reply, 'paragraphs'>): string => plainText(note);

/** The sides of a note's mark, in points. */
export const NOTE_MARK = 16;
