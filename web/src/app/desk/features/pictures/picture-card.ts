import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { firstValueFrom } from 'rxjs';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { PICTURE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PictureThumb } from '../../platform/pictures/picture-thumb';
import { PuttingIn } from '../../platform/pictures/putting-in';
import { RecentPictures, type ReadyPicture } from '../../platform/pictures/recent-pictures';

/** Where pictures come from: files, the camera, and those used before. */
@Component({
  selector: 'stylet-picture-card',
  imports: [MatButtonModule, MatIconModule, PictureThumb],
  templateUrl: './picture-card.html',
  styleUrls: ['../../platform/kit/card.scss', './picture-card.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureCard {
  protected readonly card = inject(OPEN_CARD);
  private readonly dialog = inject(MatDialog);
  private readonly puttingIn = inject(PuttingIn);
  protected readonly recent = inject(RecentPictures).list;

  protected async fromFile(): Promise<void> {
    await this.takeInHand(await chooseFiles(PICTURE_FILES));
  }

  protected async fromCamera(): Promise<void> {
    const { CameraDialog } = await import('./camera-dialog');
    const photo = await firstValueFrom(this.dialog.open(CameraDialog).afterClosed());
    if (photo instanceof File) await this.takeInHand([photo]);
  }

  protected use(picture: ReadyPicture): void {
    this.puttingIn.inHand.set([picture]);
    this.card.close();
  }

  private async takeInHand(files: readonly File[]): Promise<void> {
    await this.puttingIn.takeInHand(files);
    if (this.puttingIn.inHand().length > 0) this.card.close();
  }
}
