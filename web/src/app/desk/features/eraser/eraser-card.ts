import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { MatSliderModule } from '@angular/material/slider';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { isErasable, noAnnotations, removalOf } from '@stylet/core/document';
import { toMillimetres } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { ViewState } from '../../platform/view/view-state';
import { eraserSizes, type Eraser, type PenAction, type PenButtons } from '@stylet/core/api';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';

/** Steps of the size slider: each is so much larger than the one before, down to a hair. */
const STEPS = 100;
const GROWTH = Math.log(eraserSizes.most / eraserSizes.least);

/** How the eraser works, and what the pen's own buttons do. */
@Component({
  selector: 'stylet-eraser-card',
  imports: [
    MatFormFieldModule,
    MatSelectModule,
    MatCheckboxModule,
    MatButtonModule,
    MatIconModule,
    MatSliderModule,
    MatSnackBarModule,
  ],
  templateUrl: './eraser-card.html',
  styleUrls: ['../../platform/kit/card.scss', './eraser-card.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EraserCard {
  protected readonly card = inject(OPEN_CARD);
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly view = inject(ViewState);
  private readonly snackBar = inject(MatSnackBar);
  protected readonly eraser = this.store.selectSignal(kitFeature.selectEraser);
  protected readonly buttons = this.store.selectSignal(kitFeature.selectButtons);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);

  protected readonly steps = STEPS;
  protected readonly step = computed(() =>
    Math.round((STEPS * Math.log(this.eraser().size / eraserSizes.least)) / GROWTH),
  );
  protected readonly millimetres = computed(() => {
    const size = toMillimetres(this.eraser().size);
    return size < 1 ? size.toFixed(2) : size.toFixed(1);
  });
  protected readonly targets = [
    { value: 'both', words: 'All' },
    { value: 'ink', words: 'Ink' },
    { value: 'highlights', words: 'Highlights' },
  ] as const;
  protected readonly penButtons = [
    { part: 'eraserEnd', words: 'Eraser end' },
    { part: 'barrel', words: 'Side button' },
  ] as const;
  protected readonly actions: readonly { value: PenAction; words: string }[] = [
    { value: 'eraser', words: 'erases' },
    { value: 'lasso', words: 'selects' },
    { value: 'pen', words: 'writes with the last pen' },
    { value: 'undo', words: 'undoes' },
    { value: 'none', words: 'does nothing' },
  ];

  protected change(change: Partial<Eraser>): void {
    this.store.dispatch(kitActions.eraserChanged({ change }));
  }

  protected resize(step: number): void {
    this.change({ size: eraserSizes.least * Math.exp((step / STEPS) * GROWTH) });
  }

  protected setButton(part: keyof PenButtons, action: PenAction): void {
    this.store.dispatch(kitActions.buttonsChanged({ change: { [part]: action } }));
  }

  /** Takes away all that the eraser is set to take from the page in view. */
  protected clearPage(): void {
    const page = this.view.pages()[this.view.currentPage()];
    const { target } = this.eraser();
    const effects = Object.values(this.annotations()[page.id] ?? noAnnotations)
      .filter((annotation) => isErasable(annotation, target))
      .map(removalOf);
    this.card.close();
    if (effects.length === 0) {
      this.snackBar.open('There is nothing to clear on this page.', 'Close', { duration: 4000 });
      return;
    }
    this.editing.change(effects);
    const what = effects.length === 1 ? '1 annotation' : `${effects.length} annotations`;
    this.snackBar
      .open(`Page ${page.label} cleared of ${what}.`, 'Undo', { duration: 8000 })
      .onAction()
      .subscribe(() => this.editing.undo());
  }
}
