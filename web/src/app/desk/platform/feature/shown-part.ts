import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  reflectComponentType,
  signal,
  type OnDestroy,
  type Type,
} from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { triedAgain } from '../../../loading/tried-again';
import { NOT_LOADED } from '../../../loading/not-loaded';
import type { Part } from './parts';

/** Shows what was registered, as soon as it is loaded. With the class `placed` it is a box of its own. */
@Component({
  selector: 'stylet-shown-part',
  imports: [NgComponentOutlet],
  template: `
    @if (type(); as type) {
      <ng-container *ngComponentOutlet="type; inputs: known()" />
    }
  `,
  styles: ':host:not(.placed, .hidden) { display: contents }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShownPart implements OnDestroy {
  readonly part = input.required<Part>();
  readonly inputs = input<Record<string, unknown>>({});
  private loading: AbortController | undefined;
  private readonly snackBar = inject(MatSnackBar);
  protected readonly type = signal<Type<unknown> | undefined>(undefined);
  /** Those that the component has. */
  protected readonly known = computed(() => {
    const type = this.type();
    const has = new Set(type && reflectComponentType(type)?.inputs.map(({ propName }) => propName));
    return Object.fromEntries(Object.entries(this.inputs()).filter(([name]) => has.has(name)));
  });

  constructor() {
    effect(() => {
      const part = this.part();
      if ('component' in part) this.type.set(part.component);
      else void this.load(part.load);
    });
  }

  ngOnDestroy(): void {
    this.loading?.abort();
  }

  private async load(load: () => Promise<Type<unknown>>): Promise<void> {
    this.loading?.abort();
    const { signal } = (this.loading = new AbortController());
    let isTold = false;
    const failed = (): void => {
      if (!isTold) this.snackBar.open(NOT_LOADED, 'Close', { duration: 12_000 });
      isTold = true;
    };
    const type = await triedAgain(load, failed, signal);
    if (type && !signal.aborted) this.type.set(type);
  }
}
