import { Injectable, computed, inject } from '@angular/core';
import { newId, type SavedTextStyle, type TextStyle } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';

/** Saved looks of typed text, kept with the kit, and the one that the next box begins with. */
@Injectable({ providedIn: 'root' })
export class TextStyleKit {
  private readonly store = inject(Store);
  private readonly styles = this.store.selectSignal(kitFeature.selectText);
  readonly last = computed(() => this.styles().last);
  readonly saved = computed(() => this.styles().saved);

  /** The next box begins with it. */
  keep(style: TextStyle): void {
    if (JSON.stringify(style) !== JSON.stringify(this.last())) this.change({ last: style });
  }

  save(style: TextStyle, name: string): SavedTextStyle {
    const saved = { id: newId(), name, style };
    this.change({ saved: [...this.saved(), saved] });
    return saved;
  }

  rename(id: string, name: string): void {
    this.change({ saved: this.saved().map((one) => (one.id === id ? { ...one, name } : one)) });
  }

  remove(id: string): void {
    this.change({ saved: this.saved().filter((one) => one.id !== id) });
  }

  /** Puts one in another place among the others. */
  move(id: string, by: 1 | -1): void {
    const all = [...this.saved()];
    const at = all.findIndex((one) => one.id === id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= all.length) return;
    [all[at], all[to]] = [all[to], all[at]];
    this.change({ saved: all });
  }

  private change(change: Parameters<typeof kitActions.textStylesChanged>[0]['change']): void {
    this.store.dispatch(kitActions.textStylesChanged({ change }));
  }
}
