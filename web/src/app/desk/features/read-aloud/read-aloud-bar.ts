import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { FASTEST, ReadAloud, SLOWEST, STEP } from './read-aloud';
import { Voices } from './voices';

/** Steers reading aloud: on and back, pause, how fast, whose voice. */
@Component({
  selector: 'stylet-read-aloud-bar',
  imports: [MatFormFieldModule, MatSelectModule, MatButtonModule, MatIconModule, MatTooltipModule],
  templateUrl: './read-aloud-bar.html',
  styleUrl: './read-aloud-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadAloudBar {
  protected readonly reading = inject(ReadAloud);
  protected readonly voices = inject(Voices);
  protected readonly slowest = SLOWEST;
  protected readonly fastest = FASTEST;

  protected change(by: 1 | -1): void {
    this.reading.setRate(this.reading.rate() + by * STEP);
  }
}
