import { foreignSchema, inkSchema, markupSchema, shapeSchema, type Annotation } from './annotation';
import { changedFields, fieldsIn, fieldsNow, type KnownFields } from './fields';
import { changedLandmark, landmarkFieldsNow, type Landmarks } from './landmark';
import type { Effect } from './operation';
import { linkSchema } from './link';
import { changedPage, type Pages } from './page';
import { pictureSchema } from './picture';
import { withEntry, withoutEntry } from './records';
import { noAnnotations, withAnnotation, type DocumentState, type PageAnnotations } from './state';

/**
 * The document after an effect. Never throws on what another author did meanwhile: removing wins
 * over changing, and adding what is there already replaces it. An annotation's id stands once in a document: added
 * on another page it is no longer on the first.
 */
export function apply(state: DocumentState, effect: Effect): DocumentState {
  switch (effect.type) {
    case 'annotation.add': {
      const { annotation } = effect;
      const { id, pageId } = annotation;
      const page = pageOf(state, pageId);
      if (id in page) return withPage(state, pageId, withEntry(page, id, annotation));
      const before = findAnywhere(state, id);
      const left = before
        ? withPage(state, before.pageId, withoutEntry(pageOf(state, before.pageId), id))
        : state;
      return withPage(left, pageId, withAnnotation(page, annotation));
    }
    case 'annotation.change': {
      const before = find(state, effect.pageId, effect.annotationId);
      if (!before) return state;
      const page = pageOf(state, effect.pageId);
      const after = changed(before, effect.fields);
      return withPage(state, effect.pageId, withEntry(page, before.id, after));
    }
    case 'annotation.remove': {
      if (!find(state, effect.pageId, effect.annotationId)) return state;
      const page = pageOf(state, effect.pageId);
      return withPage(state, effect.pageId, withoutEntry(page, effect.annotationId));
    }
    case 'landmark.add':
      return withLandmarks(state, withEntry(state.landmarks, effect.landmark.id, effect.landmark));
    case 'landmark.change': {
      const before = state.landmarks[effect.landmarkId];
      if (!before) return state;
      const after = changedLandmark(before, effect.fields);
      return withLandmarks(state, withEntry(state.landmarks, before.id, after));
    }
    case 'landmark.remove': {
      if (!state.landmarks[effect.landmarkId]) return state;
      return withLandmarks(state, withoutEntry(state.landmarks, effect.landmarkId));
    }
    case 'page.add':
      return withPages(state, withEntry(state.pages, effect.page.id, effect.page));
    case 'page.change': {
      const before = state.pages[effect.pageId];
      if (!before) return state;
      return withPages(
        state,
        withEntry(state.pages, before.id, changedPage(before, effect.fields)),
      );
    }
    case 'page.remove':
      if (!state.pages[effect.pageId]) return state;
      return withPages(state, withoutEntry(state.pages, effect.pageId));
    case 'document.rename':
      return { ...state, title: effect.title };
  }
}

/**
 * The effect that undoes `effect`, as seen from the state before it; undefined when there is
 * nothing to undo.
 */
export function invert(state: DocumentState, effect: Effect): Effect | undefined {
  switch (effect.type) {
    case 'annotation.add': {
      const { id, pageId } = effect.annotation;
      const before = find(state, pageId, id) ?? findAnywhere(state, id);
      return before
        ? { type: 'annotation.add', annotation: before }
        : { type: 'annotation.remove', pageId, annotationId: id };
    }
    case 'annotation.change': {
      const before = find(state, effect.pageId, effect.annotationId);
      if (!before) return undefined;
      const fields = fieldsNow(before, fieldsOf[before.kind], effect.fields);
      return { ...effect, fields };
    }
    case 'annotation.remove': {
      const before = find(state, effect.pageId, effect.annotationId);
      return before && { type: 'annotation.add', annotation: before };
    }
    case 'landmark.add': {
      const before = state.landmarks[effect.landmark.id];
      return before
        ? { type: 'landmark.add', landmark: before }
        : { type: 'landmark.remove', landmarkId: effect.landmark.id };
    }
    case 'landmark.change': {
      const before = state.landmarks[effect.landmarkId];
      if (!before) return undefined;
      return { ...effect, fields: landmarkFieldsNow(before, effect.fields) };
    }
    case 'landmark.remove': {
      const before = state.landmarks[effect.landmarkId];
      return before && { type: 'landmark.add', landmark: before };
    }
    case 'page.add': {
      const before = state.pages[effect.page.id];
      return before
        ? { type: 'page.add', page: before }
        : { type: 'page.remove', pageId: effect.page.id };
    }
    case 'page.change': {
      const before = state.pages[effect.pageId];
      if (!before) return undefined;
      const { order, rotation, beside } = effect.fields;
      return {
        ...effect,
        fields: {
          ...(order === undefined ? {} : { order: before.order }),
          ...(rotation === undefined ? {} : { rotation: before.rotation }),
          ...(beside === undefined ? {} : { beside: before.beside ?? null }),
        },
      };
    }
    case 'page.remove': {
      const before = state.pages[effect.pageId];
      return before && { type: 'page.add', page: before };
    }
    case 'document.rename':
      return { type: 'document.rename', title: state.title };
  }
}

/** The annotation with this id on this page, if it is there. */
export function find(
  state: DocumentState,
  pageId: string,
  annotationId: string,
): Annotation | undefined {
  return pageOf(state, pageId)[annotationId];
}

/** The annotation with this id, on whatever page it is. */
function findAnywhere(state: DocumentState, annotationId: string): Annotation | undefined {
  for (const page of Object.values(state.annotations))
    if (annotationId in page) return page[annotationId];
  return undefined;
}

const withLandmarks = (state: DocumentState, landmarks: Landmarks): DocumentState => ({
  ...state,
  landmarks,
});

const withPages = (state: DocumentState, pages: Pages): DocumentState => ({ ...state, pages });

function pageOf(state: DocumentState, pageId: string): PageAnnotations {
  return state.annotations[pageId] ?? noAnnotations;
}

function withPage(state: DocumentState, pageId: string, page: PageAnnotations): DocumentState {
  return { ...state, annotations: withEntry(state.annotations, pageId, page) };
}

const fieldsOf: Record<Annotation['kind'], KnownFields> = {
  ink: fieldsIn(inkSchema),
  shape: fieldsIn(shapeSchema),
  highlight: fieldsIn(markupSchema),
  underline: fieldsIn(markupSchema),
  strikeout: fieldsIn(markupSchema),
  picture: fieldsIn(pictureSchema),
  link: fieldsIn(linkSchema),
  foreign: fieldsIn(foreignSchema),
};

/** An annotation with fields changed, those that its kind has. */
export const changed = (before: Annotation, fields: object): Annotation =>
  changedFields(before, fieldsOf[before.kind], fields);
