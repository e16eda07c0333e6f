import { Injectable, computed, inject } from '@angular/core';
import {
  entriesUnder,
  newId,
  orderAt,
  outlineTree,
  type Bookmark,
  type Effect,
  type Landmark,
  type LandmarkFields,
  type OutlineEntry,
  type OutlineNode,
  type Place,
} from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import { PageSource } from '../paper/page-source';
import { ViewState } from '../view/view-state';

/** Where an entry goes in the outline: under another one, or at the top; before the one at `index`. */
export interface OutlinePlace {
  readonly parentId: string | undefined;
  readonly index: number;
}

const LONGEST_TITLE = 120;

/** What can be done with the outline, bookmarks and keywords; each is one step of undo. */
@Injectable()
export class LandmarkActions {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly view = inject(ViewState);
  private readonly source = inject(PageSource);
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  readonly tree = computed(() => outlineTree(this.landmarks()));
  private readonly nodes = computed(() => {
    const nodes = new Map<string, { node: OutlineNode; siblings: readonly OutlineNode[] }>();
    const enter = (siblings: readonly OutlineNode[]): void =>
      siblings.forEach((node) => {
        nodes.set(node.entry.id, { node, siblings });
        enter(node.children);
      });
    enter(this.tree());
    return nodes;
  });

  /** The bookmark of the page in view, if it has one. */
  readonly bookmarkHere = computed<Bookmark | undefined>(() => {
    const page = this.view.pages()[this.view.currentPage()];
    return Object.values(this.landmarks()).find(
      (l): l is Bookmark => l.kind === 'bookmark' && l.place.pageId === page?.id,
    );
  });

  /** Bookmarks the page in view, or takes its bookmark away. */
  async toggleBookmark(): Promise<void> {
    const before = this.bookmarkHere();
    if (before) {
      this.editing.change([removing(before)]);
      return;
    }
    const pageIndex = this.view.currentPage();
    const page = this.view.pages()[pageIndex];
    if (!page) return;
    const landmark: Bookmark = {
      kind: 'bookmark',
      id: newId(),
      place: { pageId: page.id },
      title: await this.nameOf(pageIndex),
      created: new Date().toISOString(),
    };
    this.add(landmark);
  }

  /** Adds an entry that leads to a place, behind what the outline has before it. */
  addEntry(title: string, place: Place): OutlineEntry {
    const { parentId, index, siblings } = this.placeFor(place);
    const entry: OutlineEntry = {
      kind: 'outline',
      id: newId(),
      ...(parentId === undefined ? {} : { parentId }),
      order: orderAt(siblings, index),
      title: tidy(title),
      place,
      open: true,
    };
    this.add(entry);
    return entry;
  }

  /** Puts an outline in the place of the one there is. */
  replaceOutline(entries: readonly OutlineEntry[]): void {
    const before = this.tree().flatMap(entriesUnder);
    const added = entries.map((landmark): Effect => ({ type: 'landmark.add', landmark }));
    this.editing.change([...before.map(removing), ...added]);
  }

  async addPage(): Promise<OutlineEntry | undefined> {
    const pageIndex = this.view.currentPage();
    const page = this.view.pages()[pageIndex];
    return page && this.addEntry(await this.nameOf(pageIndex), { pageId: page.id });
  }

  addKeyword(word: string, place: Place, annotationIds: readonly string[] = []): void {
    this.add({
      kind: 'keyword',
      id: newId(),
      place,
      word: tidy(word),
      ...(annotationIds.length > 0 ? { annotationIds: [...annotationIds] } : {}),
      created: new Date().toISOString(),
    });
  }

  rename(landmark: Landmark, words: string): void {
    const title = tidy(words);
    if (title === '') return;
    this.change(landmark, landmark.kind === 'keyword' ? { word: title } : { title });
  }

  recolor(bookmark: Landmark, color: string | null): void {
    this.change(bookmark, { color });
  }

  /** Takes a landmark away; an entry goes with all under it. */
  remove(landmark: Landmark): void {
    const found = this.nodes().get(landmark.id);
    const gone = found ? entriesUnder(found.node) : [landmark];
    this.editing.change(gone.map(removing));
  }

  /** Moves an entry with all under it; never under itself. */
  move(id: string, { parentId, index }: OutlinePlace): void {
    const found = this.nodes().get(id);
    if (!found || (parentId && entriesUnder(found.node).some((e) => e.id === parentId))) return;
    const siblings = parentId ? this.nodes().get(parentId)!.node.children : this.tree();
    const order = orderAt(siblings, index, id);
    if (found.node.entry.parentId === parentId && found.node.entry.order === order) return;
    this.change(found.node.entry, { parentId: parentId ?? null, order });
  }

  /** By keys: up or down among its siblings, under the one before it, or out beside its parent. */
  step(id: string, way: 'up' | 'down' | 'in' | 'out'): void {
    const found = this.nodes().get(id);
    if (!found) return;
    const { node, siblings } = found;
    const { parentId } = node.entry;
    const at = siblings.indexOf(node);
    if (way === 'up' && at > 0) this.move(id, { parentId, index: at - 1 });
    if (way === 'down' && at < siblings.length - 1) this.move(id, { parentId, index: at + 2 });
    if (way === 'in' && at > 0) {
      const before = siblings[at - 1];
      this.move(id, { parentId: before.entry.id, index: before.children.length });
    }
    if (way === 'out' && parentId) {
      const parent = this.nodes().get(parentId)!;
      const index = parent.siblings.indexOf(parent.node) + 1;
      this.move(id, { parentId: parent.node.entry.parentId, index });
    }
  }

  /** What a page is called: the last entry that leads to it, or what it says first. */
  private async nameOf(pageIndex: number): Promise<string> {
    const page = this.view.pages()[pageIndex];
    const here = [...this.nodes().values()].find(
      ({ node }) => node.entry.place?.pageId === page.id,
    );
    if (here) return here.node.entry.title;
    const lines = await this.source.linesOf(page);
    const first = lines.map(({ words }) => words.map(({ text }) => text).join(' ')).find(Boolean);
    return tidy(first ?? '') || `Page ${page.label || pageIndex + 1}`;
  }

  /** Behind the last entry that does not lie behind a place, beside it. */
  private placeFor(place: Place): OutlinePlace & { siblings: readonly OutlineNode[] } {
    const pages = new Map(this.view.pages().map(({ id }, i) => [id, i]));
    const isBefore = ({ entry }: OutlineNode): boolean => {
      if (!entry.place) return false;
      const [a, b] = [pages.get(entry.place.pageId) ?? 0, pages.get(place.pageId) ?? 0];
      return a < b || (a === b && (entry.place.y ?? 0) <= (place.y ?? 0));
    };
    let last: { node: OutlineNode; siblings: readonly OutlineNode[] } | undefined;
    for (const found of this.nodes().values()) if (isBefore(found.node)) last = found;
    if (!last) return { parentId: undefined, index: 0, siblings: this.tree() };
    const { node, siblings } = last;
    return { parentId: node.entry.parentId, index: siblings.indexOf(node) + 1, siblings };
  }

  private add(landmark: Landmark): void {
    this.editing.change([{ type: 'landmark.add', landmark }]);
  }

  private change({ id }: Landmark, fields: LandmarkFields): void {
    this.editing.change([{ type: 'landmark.change', landmarkId: id, fields }]);
  }
}

const removing = ({ id }: Landmark): Effect => ({ type: 'landmark.remove', landmarkId: id });
const tidy = (words: string): string => words.replace(/\s+/g, ' ').trim().slice(0, LONGEST_TITLE);
