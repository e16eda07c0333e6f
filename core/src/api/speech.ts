import { z } from 'zod';
import { count, text } from '../bounds/index';

/** A voice of the server's, for browsers that have none. */
export const voiceSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** A language tag (BCP 47). */
  language: z.string(),
});
export type Voice = z.infer<typeof voiceSchema>;
export const voiceListSchema = z.object({ voices: z.array(voiceSchema) });

/** A sentence to be spoken. */
export const speechWantedSchema = z.object({
  text: text(5000).trim().min(1),
  voice: text(100),
});
export type SpeechWanted = z.infer<typeof speechWantedSchema>;

export const speechSchema = z.object({
  /** A WAV file, in base 64. */
  audio: z.base64(),
  /** When each word begins: its place in the text (UTF-16 units) and the time in ms. */
  marks: z.array(z.object({ place: count, at: z.number().nonnegative() })),
});
export type Speech = z.infer<typeof speechSchema>;
