import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Command } from 'prosemirror-state';
import {
  addColumn,
  addRow,
  putTable,
  removeColumn,
  removeRow,
  removeTable,
  toggleHead,
} from './table-commands';

const CHANGES: readonly { readonly name: string; readonly command: Command }[] = [
  { name: 'Row above', command: addRow(0) },
  { name: 'Row below', command: addRow(1) },
  { name: 'Column before', command: addColumn(0) },
  { name: 'Column behind', command: addColumn(1) },
  { name: 'Take the row out', command: removeRow },
  { name: 'Take the column out', command: removeColumn },
  { name: 'Take the table out', command: removeTable },
];

/** Puts a table into the text of pages; within one, changes its rows and columns. */
@Component({
  selector: 'stylet-table-button',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  template: `
    @if (hasHead() === undefined) {
      <button
        mat-icon-button
        aria-label="Put a table in"
        matTooltip="Put a table in"
        (click)="run.emit(putTable)"
      >
        <mat-icon svgIcon="table" />
      </button>
    } @else {
      <button
        mat-button
        [matMenuTriggerFor]="menu"
        [matMenuTriggerRestoreFocus]="false"
        (menuClosed)="closed.emit()"
      >
        <mat-icon svgIcon="table" />
        Table
      </button>
      <mat-menu #menu="matMenu">
        <button
          mat-menu-item
          role="menuitemcheckbox"
          [attr.aria-checked]="hasHead()"
          (click)="run.emit(toggleHead)"
        >
          {{ hasHead() ? 'First row is a row as others' : 'First row says what columns are' }}
        </button>
        @for (change of changes; track change.name) {
          <button mat-menu-item (click)="run.emit(change.command)">{{ change.name }}</button>
        }
      </mat-menu>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TableButton {
  /** Whether the first row of the table with the caret says what its columns are; undefined where the caret is in none. */
  readonly hasHead = input.required<boolean | undefined>();
  readonly run = output<Command>();
  /** The keyboard is free again. */
  readonly closed = output();
  protected readonly changes = CHANGES;
  protected readonly putTable = putTable;
  protected readonly toggleHead = toggleHead;
}
