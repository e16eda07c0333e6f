import { z } from 'zod';
import { count, text } from '../bounds/index';
import { idSchema } from '../document/index';

export const partsOfSpeech = ['noun', 'verb', 'adjective', 'adverb'] as const;
export type PartOfSpeech = (typeof partsOfSpeech)[number];

/** How the words of another meaning are related to the one they stand with. */
export const relations = [
  'opposite',
  'similar',
  'broader',
  'narrower',
  'part of',
  'parts',
  'derived',
  'see also',
] as const;
export type Relation = (typeof relations)[number];

export const meaningSchema = z.object({
  gloss: z.string(),
  examples: z.array(z.string()),
  /** Other words of the same meaning. */
  synonyms: z.array(z.string()),
  related: z.array(z.object({ relation: z.enum(relations), words: z.array(z.string()) })),
});
export type Meaning = z.infer<typeof meaningSchema>;

/** What one dictionary says of one headword. */
export const dictionaryEntrySchema = z.object({
  headword: z.string(),
  partOfSpeech: z.enum(partsOfSpeech).optional(),
  meanings: z.array(meaningSchema),
});
export type DictionaryEntry = z.infer<typeof dictionaryEntrySchema>;

/** A word, or a few that belong together. */
export const lookupQuerySchema = z.object({ word: text(200) });

export const lookupSchema = z.object({
  word: z.string(),
  dictionaries: z.array(z.object({ title: z.string(), entries: z.array(dictionaryEntrySchema) })),
});
export type Lookup = z.infer<typeof lookupSchema>;

/** A dictionary that was added; the one that ships is not listed. */
export const dictionarySchema = z.object({
  id: idSchema,
  title: z.string(),
  /** How many entries it has. */
  entries: count,
});
export type Dictionary = z.infer<typeof dictionarySchema>;
export const dictionaryListSchema = z.object({ dictionaries: z.array(dictionarySchema) });
export const dictionaryTitleSchema = z.object({ title: text(200).trim().min(1) });
