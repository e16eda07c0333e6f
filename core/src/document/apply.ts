import type { Annotation } from './annotation';
import {
  changedThing,
  deedOf,
  entities,
  placeOfDeed,
  thingFieldsNow,
  type Deed,
  type EntityName,
  type Thing,
  type Was,
  type Whereabouts,
} from './entities';
import type { Effect } from './operation';
import { withEntry, withoutEntry } from './records';
import {
  noAnnotations,
  recordOf,
  withAnnotation,
  withoutAnnotation,
  type DocumentState,
  type PageAnnotations,
} from './state';
import type { TextBox } from './text-box';

/** Where things are kept while effects are carried out. */
export interface Things {
  find<E extends EntityName>(entity: E, where: Whereabouts): Thing<E> | undefined;
  put<E extends EntityName>(entity: E, thing: Thing<E>): void;
  take(entity: EntityName, where: Whereabouts): void;
  rename(title: string): void;
}

/**
 * Carries out an effect. Never throws on what another author did meanwhile: removing wins
 * over changing, and adding what is there already replaces it. An annotation's id stands once in a document: added
 * on another page it is no longer on the first.
 */
export function carryOut(things: Things, effect: Effect): void {
  const deed = deedOf(effect);
  if (deed) doTo(things, deed);
  else if (effect.type === 'document.rename') things.rename(effect.title);
}

function doTo<E extends EntityName>(things: Things, deed: Deed<E>): void {
  const { entity } = deed;
  switch (deed.verb) {
    case 'add':
      things.put(entity, deed.thing);
      return;
    case 'change': {
      const before = things.find(entity, deed.where);
      if (before) things.put(entity, changedThing(entity, before, deed.fields, deed.was));
      return;
    }
    case 'remove':
      if (things.find(entity, deed.where)) things.take(entity, deed.where);
  }
}

/** The document after an effect; see `carryOut`. */
export function apply(state: DocumentState, effect: Effect): DocumentState {
  const things = new Copied(state);
  carryOut(things, effect);
  return things.state;
}

/** A document of which what is changed is copied. */
class Copied implements Things {
  constructor(public state: DocumentState) {}

  find<E extends EntityName>(entity: E, where: Whereabouts): Thing<E> | undefined {
    return findThing(this.state, entity, where);
  }

  put<E extends EntityName>(entity: E, thing: Thing<E>): void {
    if (entity === 'annotation') this.putAnnotation(thing as Annotation);
    else this.record(entity, (record) => withEntry(record, thing.id, thing));
  }

  take(entity: EntityName, { id, pageId }: Whereabouts): void {
    if (entity === 'annotation') this.page(pageId!, withoutAnnotation(this.on(pageId!), id));
    else this.record(entity, (record) => withoutEntry(record, id));
  }

  rename(title: string): void {
    this.state = { ...this.state, title };
  }

  private putAnnotation(annotation: Annotation): void {
    const { id, pageId } = annotation;
    const before = id in this.on(pageId) ? undefined : findAnywhere(this.state, id);
    if (before) this.page(before.pageId, withoutAnnotation(this.on(before.pageId), id));
    this.page(pageId, withAnnotation(this.on(pageId), annotation));
  }

  private on(pageId: string): PageAnnotations {
    return this.state.annotations[pageId] ?? noAnnotations;
  }

  private page(pageId: string, page: PageAnnotations): void {
    const annotations = withEntry(this.state.annotations, pageId, page);
    this.state = { ...this.state, annotations };
  }

  private record(
    entity: Exclude<EntityName, 'annotation'>,
    change: (record: Readonly<Record<string, unknown>>) => Record<string, unknown>,
  ): void {
    const key = recordOf[entity];
    this.state = { ...this.state, [key]: change(this.state[key]) };
  }
}

/**
 * The effect that undoes `effect`, as seen from the state before it; undefined when there is
 * nothing to undo.
 */
export function invert(state: DocumentState, effect: Effect): Effect | undefined {
  const deed = deedOf(effect);
  return deed ? inverted(state, deed) : { type: 'document.rename', title: state.title };
}

function inverted<E extends EntityName>(state: DocumentState, deed: Deed<E>): Effect | undefined {
  const { entity } = deed;
  const where = placeOfDeed(deed);
  const before = findThing(state, entity, where);
  switch (deed.verb) {
    case 'add': {
      const there =
        before ??
        (entity === 'annotation' ? (findAnywhere(state, where.id) as Thing<E>) : undefined);
      return there ? entities[entity].add(there) : entities[entity].remove(where);
    }
    case 'change':
      return (
        before &&
        entities[entity].change(
          where,
          thingFieldsNow(entity, before, deed.fields),
          wordsAfter(entity, before, deed),
        )
      );
    case 'remove':
      return before && entities[entity].add(before);
  }
}

/** What the words of a box are after a change of them, which taking that back goes on from. */
function wordsAfter<E extends EntityName>(
  entity: E,
  before: Thing<E>,
  { fields, was }: Extract<Deed<E>, { readonly verb: 'change' }>,
): Was | undefined {
  if (!('paragraphs' in fields && 'paragraphs' in before)) return undefined;
  const after = changedThing(entity, before, fields, was);
  return { paragraphs: (after as TextBox).paragraphs };
}

/** A thing of a document, if it is there. */
export function findThing<E extends EntityName>(
  state: DocumentState,
  entity: E,
  { id, pageId }: Whereabouts,
): Thing<E> | undefined {
  const things: Readonly<Record<string, unknown>> | undefined =
    entity === 'annotation' ? state.annotations[pageId!] : state[recordOf[entity as 'page']];
  return things?.[id] as Thing<E> | undefined;
}

/** The annotation with this id on this page, if it is there. */
export const find = (
  state: DocumentState,
  pageId: string,
  annotationId: string,
): Annotation | undefined => findThing(state, 'annotation', { id: annotationId, pageId });

/** The annotation with this id, on whatever page it is. */
function findAnywhere(state: DocumentState, annotationId: string): Annotation | undefined {
  for (const page of Object.values(state.annotations))
    if (annotationId in page) return page[annotationId];
  return undefined;
}
