import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { FormulaPane } from './formula-pane';

/** A button of a bar of text that opens what formulas are written in. */
@Component({
  selector: 'stylet-formula-button',
  imports: [FormulaPane, MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  template: `
    <button
      mat-icon-button
      aria-label="Formula"
      matTooltip="Formula in TeX notation; or type it between $ and $"
      [matMenuTriggerFor]="menu"
      #open="matMenuTrigger"
      [matMenuTriggerRestoreFocus]="false"
      (menuOpened)="pane()?.focus()"
      (menuClosed)="closed.emit()"
    >
      <mat-icon svgIcon="formula" />
    </button>
    <mat-menu #menu="matMenu" class="wide-menu">
      <ng-template matMenuContent>
        <div
          class="pane"
          role="none"
          (click)="$event.stopPropagation()"
          (keydown.tab)="$event.stopPropagation()"
          (keydown.escape)="open.closeMenu()"
        >
          <stylet-formula-pane [source]="source()" (put)="put.emit($event); open.closeMenu()" />
        </div>
      </ng-template>
    </mat-menu>
  `,
  styles: '.pane { padding: 4px 12px; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FormulaButton {
  /** The notation of the formula that is there; empty for a new one. */
  readonly source = input.required<string>();
  /** What is to be put into the text. */
  readonly put = output<string>();
  /** The keyboard is free again. */
  readonly closed = output();
  protected readonly pane = viewChild(FormulaPane);
}
