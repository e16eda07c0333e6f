import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Registered } from '../../platform/feature/registered';
import { OpenDocuments, type OpenElsewhere } from '../../platform/document/open-documents';
import { Snipping, type Snip } from './snipping';

/** What has become of a snip, and where else it can go. */
@Component({
  selector: 'stylet-snip-bar',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  templateUrl: './snip-bar.html',
  styleUrl: './snip-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'toolbar',
    'aria-label': 'Snip',
    '(pointerdown)': '$event.stopPropagation()',
    '(click)': '$event.stopPropagation()',
  },
})
export class SnipBar {
  readonly snip = input.required<Snip>();
  protected readonly snipping = inject(Snipping);
  private readonly snackBar = inject(MatSnackBar);
  private readonly documents = inject(OpenDocuments);
  private readonly registered = inject(Registered);
  protected readonly actions = this.registered.made('snipActions', 'action');
  protected readonly elsewhere = this.documents.elsewhere;

  protected perform({ run }: (typeof this.actions)[number]['action']): void {
    const { page, area, picture } = this.snip();
    this.snipping.current.set(undefined);
    run(page, area.box, picture);
  }

  protected async putInto(document: OpenElsewhere): Promise<void> {
    const { picture } = this.snip();
    if (!picture) return;
    const isTaken = await this.documents.put(document, [picture]);
    const message = isTaken
      ? `The snip is in “${document.title}”.`
      : `“${document.title}” is not open any more. Open it and paste the snip there.`;
    this.snackBar.open(message, 'Close', { duration: 6000 });
    if (isTaken) this.snipping.current.set(undefined);
  }
}
