import { Injectable, inject } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import type { Press, Tool } from '../../platform/feature/tools';
import { kitActions } from '../../platform/kit/kit.reducer';
import { PICTURE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PuttingIn } from '../../platform/pictures/putting-in';
import { TapGesture } from '../../platform/input/tap-gesture';

/** A tap puts a picture on the page: the one in hand, or one that is asked for. */
@Injectable()
export class PictureTool implements Tool {
  private readonly store = inject(Store);
  private readonly puttingIn = inject(PuttingIn);

  begin({ at, page }: Press): TapGesture {
    return new TapGesture(at, page.pointsPerPixel, () => void this.put(page.page, at));
  }

  hint(): string | undefined {
    return this.puttingIn.inHand().length > 0 ? 'Tap where the picture is to go' : undefined;
  }

  private async put(page: Page, at: Point): Promise<void> {
    if (!this.puttingIn.putDown(page, at))
      await this.puttingIn.putFiles(await chooseFiles(PICTURE_FILES), page, at);
    this.store.dispatch(kitActions.toolTaken({ tool: 'pen' }));
  }
}
