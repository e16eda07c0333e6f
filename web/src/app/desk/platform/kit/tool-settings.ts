import { Injectable, computed, inject, type Signal } from '@angular/core';
import type { SettingsOfTool } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from './kit.reducer';

/** What can be set of a tool: in what form, and how it is until it is said. */
export interface SettingsEntry<S extends SettingsOfTool> {
  readonly schema: { safeParse(kept: unknown): { success: true; data: S } | { success: false } };
  readonly usual: S;
}

/** Settings of tools, kept with the kit. */
@Injectable({ providedIn: 'root' })
export class ToolSettings {
  private readonly store = inject(Store);
  private readonly kept = this.store.selectSignal(kitFeature.selectTools);

  /** Those of a tool; the usual ones where none are kept, or in a form that another version knows. */
  of<S extends SettingsOfTool>(tool: string, { schema, usual }: SettingsEntry<S>): Signal<S> {
    return computed(() => {
      const parsed = schema.safeParse(this.kept()[tool]);
      return parsed.success ? parsed.data : usual;
    });
  }

  change<S extends SettingsOfTool>(tool: string, before: S, change: Partial<S>): void {
    this.store.dispatch(kitActions.toolChanged({ tool, settings: { ...before, ...change } }));
  }
}
