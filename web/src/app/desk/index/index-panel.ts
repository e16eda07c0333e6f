import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  output,
  signal,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import type { Destination, OutlineEntry } from '@stylet/core/pdf';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { ViewState } from '../pages/view-state';

interface Row {
  readonly key: string;
  readonly depth: number;
  readonly entry: OutlineEntry;
  readonly label: string;
  readonly isOpen: boolean;
}

/** The document's outline as a tree; the entry of the page in view is marked. */
@Component({
  selector: 'stylet-index-panel',
  imports: [MatIconModule],
  templateUrl: './index-panel.html',
  styleUrl: './index-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class IndexPanel {
  readonly chosen = output<Destination>();
  private readonly store = inject(Store);
  private readonly view = inject(ViewState);
  private readonly outline = this.store.selectSignal(documentFeature.selectOutline);
  /** Entries opened or closed by hand, by their place in the tree. */
  private readonly toggled = signal<ReadonlyMap<string, boolean>>(new Map());

  protected readonly rows = computed(() => {
    const rows: Row[] = [];
    this.collect(this.outline(), 0, '', rows);
    return rows;
  });
  protected readonly current = computed(() => {
    const page = this.view.currentPage();
    return this.rows()
      .filter(({ entry }) => entry.destination && entry.destination.pageIndex <= page)
      .at(-1)?.key;
  });

  protected toggle(row: Row): void {
    this.toggled.update((map) => new Map(map).set(row.key, !row.isOpen));
  }

  protected go({ entry }: Row): void {
    if (entry.destination) this.chosen.emit(entry.destination);
  }

  private collect(
    entries: readonly OutlineEntry[],
    depth: number,
    path: string,
    rows: Row[],
  ): void {
    entries.forEach((entry, i) => {
      const key = `${path}/${i}`;
      const isOpen = this.toggled().get(key) ?? entry.open;
      const page = entry.destination && this.view.pages()[entry.destination.pageIndex];
      rows.push({ key, depth, entry, label: page?.label ?? '', isOpen });
      if (isOpen) this.collect(entry.children, depth + 1, key, rows);
    });
  }
}
