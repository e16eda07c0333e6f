import { apply, changed } from './apply';
import type { Annotation } from './annotation';
import { changedLandmark, type Landmark } from './landmark';
import type { Effect } from './operation';
import { changedPage, type DocumentPage } from './page';
import { isShown } from './shown';
import { copyOf } from './records';
import { keepOrder, type DocumentState } from './state';
import { stratumOf } from './strata';

/**
 * A document while many effects are carried out: `apply` copies a page for each effect, which for
 * thousands on one page takes long; here each page, the landmarks and the pages are copied once.
 */
export class Draft {
  private title: string;
  private landmarks: Record<string, Landmark>;
  private hasOwnLandmarks = false;
  private pages: Record<string, DocumentPage>;
  private hasOwnPages = false;
  private readonly annotations: Record<string, Record<string, Annotation>>;
  private readonly copied = new Set<string>();
  private places: Map<string, string> | undefined;
  /** Pages on which annotations came, went or changed places in the painting order. */
  private readonly reordered = new Set<string>();

  constructor(private readonly before: DocumentState) {
    this.title = before.title;
    this.annotations = copyOf(before.annotations);
    this.pages = before.pages;
    this.landmarks = before.landmarks;
  }

  /** The document as it is now; what was read from it before changes with the draft. */
  get state(): DocumentState {
    const { title, annotations, landmarks, pages } = this;
    return { title, annotations, landmarks, pages };
  }

  /** Carries an effect out, as `apply` does. */
  apply(effect: Effect): void {
    switch (effect.type) {
      case 'annotation.add': {
        const { annotation } = effect;
        const { id, pageId } = annotation;
        const before = this.pageOf(id);
        if (before !== undefined && before !== pageId) this.take(before, id);
        this.page(pageId)[id] = annotation;
        this.reordered.add(pageId);
        this.places?.set(id, pageId);
        return;
      }
      case 'annotation.change': {
        const { pageId, annotationId, fields } = effect;
        const before = this.annotations[pageId]?.[annotationId];
        if (!before) return;
        const after = changed(before, fields);
        this.page(pageId)[annotationId] = after;
        const isElsewhere =
          after.order !== before.order ||
          stratumOf(after) !== stratumOf(before) ||
          isShown(after) !== isShown(before);
        if (isElsewhere) this.reordered.add(pageId);
        return;
      }
      case 'annotation.remove': {
        const { pageId, annotationId } = effect;
        if (this.annotations[pageId]?.[annotationId]) this.take(pageId, annotationId);
        return;
      }
      case 'landmark.add':
        this.ownLandmarks()[effect.landmark.id] = effect.landmark;
        return;
      case 'landmark.change': {
        const before = this.landmarks[effect.landmarkId];
        if (before) this.ownLandmarks()[before.id] = changedLandmark(before, effect.fields);
        return;
      }
      case 'landmark.remove':
        if (this.landmarks[effect.landmarkId])
          Reflect.deleteProperty(this.ownLandmarks(), effect.landmarkId);
        return;
      case 'page.add':
        this.ownPages()[effect.page.id] = effect.page;
        return;
      case 'page.change': {
        const before = this.pages[effect.pageId];
        if (before) this.ownPages()[before.id] = changedPage(before, effect.fields);
        return;
      }
      case 'page.remove':
        if (this.pages[effect.pageId]) Reflect.deleteProperty(this.ownPages(), effect.pageId);
        return;
      case 'document.rename':
        this.title = effect.title;
    }
  }

  /** The document after all effects; the draft is not to be used any more. */
  done(): DocumentState {
    for (const pageId of this.copied)
      if (!this.reordered.has(pageId))
        keepOrder(this.before.annotations[pageId], this.annotations[pageId]);
    return this.state;
  }

  private take(pageId: string, annotationId: string): void {
    Reflect.deleteProperty(this.page(pageId), annotationId);
    this.reordered.add(pageId);
    this.places?.delete(annotationId);
  }

  /** The page an annotation is on; worked out for all when it is first asked. */
  private pageOf(annotationId: string): string | undefined {
    if (!this.places) {
      this.places = new Map();
      for (const [pageId, page] of Object.entries(this.annotations))
        for (const id of Object.keys(page)) this.places.set(id, pageId);
    }
    return this.places.get(annotationId);
  }

  private ownLandmarks(): Record<string, Landmark> {
    if (!this.hasOwnLandmarks) {
      this.hasOwnLandmarks = true;
      this.landmarks = copyOf(this.landmarks);
    }
    return this.landmarks;
  }

  private ownPages(): Record<string, DocumentPage> {
    if (!this.hasOwnPages) {
      this.hasOwnPages = true;
      this.pages = copyOf(this.pages);
    }
    return this.pages;
  }

  private page(pageId: string): Record<string, Annotation> {
    if (!this.copied.has(pageId)) {
      this.copied.add(pageId);
      this.annotations[pageId] = copyOf(this.annotations[pageId] ?? {});
    }
    return this.annotations[pageId];
  }
}

/** The document after effects, one after the other. */
export function applyAll(state: DocumentState, effects: readonly Effect[]): DocumentState {
  // For a single one `apply` knows how to keep the painting order.
  if (effects.length === 1) return apply(state, effects[0]);
  const draft = new Draft(state);
  for (const effect of effects) draft.apply(effect);
  return draft.done();
}
