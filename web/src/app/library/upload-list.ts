import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import type { Upload } from './library.reducer';

@Component({
  selector: 'stylet-upload-list',
  imports: [MatButtonModule, MatIconModule, MatProgressBarModule, RouterLink],
  templateUrl: './upload-list.html',
  styleUrl: './upload-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UploadList {
  readonly uploads = input.required<readonly Upload[]>();
  readonly putAway = output();

  protected readonly allEnded = computed(() =>
    this.uploads().every(({ state }) => state === 'done' || state === 'failed'),
  );
  protected readonly heading = computed(() => {
    const total = this.uploads().length;
    const done = this.uploads().filter(({ state }) => state === 'done').length;
    return `Brought in ${done} of ${total}`;
  });
}
