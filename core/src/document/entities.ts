import { isSame } from '../same/index';
import { mergedParagraphs } from '../typed/index';
import { foreignSchema, inkSchema, markupSchema, shapeSchema, type Annotation } from './annotation';
import { changedFields, fieldsIn, fieldsNow, type KnownFields } from './fields';
import type { Kind } from './kinds';
import { bookmarkSchema, keywordSchema, outlineEntrySchema, type Landmark } from './landmark';
import type { LandmarkFields } from './landmark';
import { linkSchema } from './link';
import { noteSchema, replySchema } from './note';
import type { AnnotationFields, Effect } from './operation';
import { documentPageSchema, type DocumentPage, type PageFields } from './page';
import { pictureSchema } from './picture';
import { textBoxSchema, type TextBox } from './text-box';

/** What a document is made of: things with an id of their own, which are added, changed and removed alike. */
export interface EntityTypes {
  readonly annotation: { thing: Annotation; fields: AnnotationFields };
  readonly landmark: { thing: Landmark; fields: LandmarkFields };
  readonly page: { thing: DocumentPage; fields: PageFields };
}
export type EntityName = keyof EntityTypes;
export type Thing<E extends EntityName> = EntityTypes[E]['thing'];
export type FieldsOf<E extends EntityName> = EntityTypes[E]['fields'];

/** Where a thing is: `pageId` where such things are kept by page. */
export interface Whereabouts {
  readonly id: string;
  readonly pageId?: string;
}

export interface Entity<T, F> {
  readonly whereIs: (thing: T) => Whereabouts;
  /** The fields it can have. */
  readonly fields: (thing: T) => KnownFields;
  /** Whether a thing is still as it was added. */
  readonly isAs: (now: T, added: T) => boolean;
  readonly add: (thing: T) => Effect;
  readonly change: (where: Whereabouts, fields: F, was?: Was) => Effect;
  readonly remove: (where: Whereabouts) => Effect;
}

const annotationFields: Record<Kind, KnownFields> = {
  ink: fieldsIn(inkSchema),
  shape: fieldsIn(shapeSchema),
  highlight: fieldsIn(markupSchema),
  underline: fieldsIn(markupSchema),
  strikeout: fieldsIn(markupSchema),
  picture: fieldsIn(pictureSchema),
  textBox: fieldsIn(textBoxSchema),
  link: fieldsIn(linkSchema),
  note: fieldsIn(noteSchema),
  reply: fieldsIn(replySchema),
  foreign: fieldsIn(foreignSchema),
};

const landmarkFields: Record<Landmark['kind'], KnownFields> = {
  outline: fieldsIn(outlineEntrySchema),
  bookmark: fieldsIn(bookmarkSchema),
  keyword: fieldsIn(keywordSchema),
};

const pageFields = fieldsIn(documentPageSchema);

/** All there are; one more is an entry here, its effects, and where the server keeps it. */
export const entities: {
  readonly [E in EntityName]: Entity<Thing<E>, FieldsOf<E>>;
} = {
  annotation: {
    whereIs: ({ id, pageId }) => ({ id, pageId }),
    fields: ({ kind }) => annotationFields[kind],
    // Every change of an annotation sets `modified`: the same time means the same state.
    isAs: (now, added) => now.modified === added.modified,
    add: (annotation) => ({ type: 'annotation.add', annotation }),
    change: ({ id, pageId }, fields, was) => ({
      type: 'annotation.change',
      pageId: pageId!,
      annotationId: id,
      fields,
      ...(was ? { was } : {}),
    }),
    remove: ({ id, pageId }) => ({
      type: 'annotation.remove',
      pageId: pageId!,
      annotationId: id,
    }),
  },
  landmark: {
    whereIs: ({ id }) => ({ id }),
    fields: ({ kind }) => landmarkFields[kind],
    isAs: isSame,
    add: (landmark) => ({ type: 'landmark.add', landmark }),
    change: ({ id }, fields) => ({ type: 'landmark.change', landmarkId: id, fields }),
    remove: ({ id }) => ({ type: 'landmark.remove', landmarkId: id }),
  },
  page: {
    whereIs: ({ id }) => ({ id }),
    fields: () => pageFields,
    isAs: isSame,
    add: (page) => ({ type: 'page.add', page }),
    change: ({ id }, fields) => ({ type: 'page.change', pageId: id, fields }),
    remove: ({ id }) => ({ type: 'page.remove', pageId: id }),
  },
};

export type Was = NonNullable<Extract<Effect, { readonly type: 'annotation.change' }>['was']>;

/** What an effect does to one thing. */
export type Deed<E extends EntityName = EntityName> = { readonly entity: E } & (
  | { readonly verb: 'add'; readonly thing: Thing<E> }
  | {
      readonly verb: 'change';
      readonly where: Whereabouts;
      readonly fields: FieldsOf<E>;
      /** What fields that are merged were when they were changed. */
      readonly was?: Was;
    }
  | { readonly verb: 'remove'; readonly where: Whereabouts }
);

/** What an effect does to a thing; undefined for one that is about the document itself. */
export function deedOf(
  effect: Effect,
): Deed<'annotation'> | Deed<'landmark'> | Deed<'page'> | undefined {
  switch (effect.type) {
    case 'annotation.add':
      return { entity: 'annotation', verb: 'add', thing: effect.annotation };
    case 'annotation.change':
      return {
        entity: 'annotation',
        verb: 'change',
        where: { id: effect.annotationId, pageId: effect.pageId },
        fields: effect.fields,
        ...(effect.was ? { was: effect.was } : {}),
      };
    case 'annotation.remove':
      return {
        entity: 'annotation',
        verb: 'remove',
        where: { id: effect.annotationId, pageId: effect.pageId },
      };
    case 'landmark.add':
      return { entity: 'landmark', verb: 'add', thing: effect.landmark };
    case 'landmark.change':
      return {
        entity: 'landmark',
        verb: 'change',
        where: { id: effect.landmarkId },
        fields: effect.fields,
      };
    case 'landmark.remove':
      return { entity: 'landmark', verb: 'remove', where: { id: effect.landmarkId } };
    case 'page.add':
      return { entity: 'page', verb: 'add', thing: effect.page };
    case 'page.change':
      return {
        entity: 'page',
        verb: 'change',
        where: { id: effect.pageId },
        fields: effect.fields,
      };
    case 'page.remove':
      return { entity: 'page', verb: 'remove', where: { id: effect.pageId } };
    case 'document.rename':
      return undefined;
  }
}

/** The thing of an entity that an effect is about, if it is about one. */
export function whereOf(effect: Effect, entity: EntityName): Whereabouts | undefined {
  const deed = deedOf(effect);
  return deed?.entity === entity ? placeOfDeed(deed) : undefined;
}

/** Where the thing is that is done something to. */
export function placeOfDeed<E extends EntityName>(deed: Deed<E>): Whereabouts {
  return deed.verb === 'add' ? entities[deed.entity].whereIs(deed.thing) : deed.where;
}

/** A thing with fields changed, those that it can have. */
export function changedThing<E extends EntityName>(
  entity: E,
  before: Thing<E>,
  fields: FieldsOf<E>,
  was?: Was,
): Thing<E> {
  const told = was ? { ...fields, ...mergedFields(before, fields, was) } : fields;
  return changedFields(before, entities[entity].fields(before), told);
}

/** The words of a box that others have gone on with meanwhile, with what was made of those that were there before. */
function mergedFields(before: object, fields: object, { paragraphs: base }: Was): object {
  if (!('paragraphs' in before) || !('paragraphs' in fields)) return {};
  const [theirs, ours] = [before, fields].map(
    ({ paragraphs }) => paragraphs as TextBox['paragraphs'],
  );
  return { paragraphs: mergedParagraphs(base, theirs, ours) };
}

/** The fields of a change whose last one counts: words are put together, and their box is as large as they are. */
export function ownFields<E extends EntityName>({
  fields,
  was,
}: Extract<Deed<E>, { readonly verb: 'change' }>): FieldsOf<E> {
  if (!was) return fields;
  const merged = new Set(['paragraphs', 'size', 'modified']);
  return Object.fromEntries(
    Object.entries(fields).filter(([key]) => !merged.has(key)),
  ) as FieldsOf<E>;
}

/** What the fields of a thing that are about to be changed are now; null for those there are none of. */
export const thingFieldsNow = <E extends EntityName>(
  entity: E,
  before: Thing<E>,
  fields: FieldsOf<E>,
): FieldsOf<E> => fieldsNow(before, entities[entity].fields(before), fields) as FieldsOf<E>;

/** An annotation with fields changed, those that its kind has. */
export const changed = (before: Annotation, fields: object): Annotation =>
  changedThing('annotation', before, fields);
