import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  numberAttribute,
} from '@angular/core';
import { Title } from '@angular/platform-browser';
import { Store } from '@ngrx/store';
import { features } from './features';
import { Desk, type Address } from './frame/desk';
import { frame } from './frame/frame-feature';
import { deskProviders } from './frame/providers';
import { documentFeature } from './platform/document/document.reducer';
import { DESK_FEATURES } from './platform/feature/desk-feature';

const all = [frame, ...features];

const PROGRAM = 'Stylet';

/** What an address leaves out is at the top left. */
const coordinate = (value: unknown): number => numberAttribute(value, 0);

/** A desk with all its features, at the place that its address names. */
@Component({
  imports: [Desk],
  providers: [
    ...deskProviders,
    ...features.flatMap(({ providers }) => providers ?? []),
    { provide: DESK_FEATURES, useValue: all },
  ],
  styles: ':host { display: contents }',
  template: '<stylet-desk [id]="id()" [address]="address()" />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeskScreen {
  readonly id = input.required<string>();
  readonly page = input<string>();
  readonly at = input<string>();
  readonly x = input(0, { transform: coordinate });
  readonly y = input(0, { transform: coordinate });
  /** What was found there. */
  readonly find = input<string>();
  readonly keepsCase = input(false, { transform: booleanAttribute });
  readonly wholeWords = input(false, { transform: booleanAttribute });

  protected readonly address = computed((): Address => {
    const [page, at, typed] = [this.page(), this.at(), this.find()];
    const [keepsCase, wholeWords] = [this.keepsCase(), this.wholeWords()];
    return {
      x: this.x(),
      y: this.y(),
      ...(page ? { page } : {}),
      ...(at === undefined ? {} : { at: Number(at) }),
      ...(typed ? { find: { typed, keepsCase, wholeWords } } : {}),
    };
  });

  constructor() {
    const title = inject(Store).selectSignal(documentFeature.selectTitle);
    // Of several windows and tabs each says which document it is.
    const shown = inject(Title);
    effect(() => shown.setTitle(title() === '' ? PROGRAM : `${title()} · ${PROGRAM}`));
    inject(DestroyRef).onDestroy(() => shown.setTitle(PROGRAM));
  }
}
