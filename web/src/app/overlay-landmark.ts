import { Injectable } from '@angular/core';
import { OverlayContainer } from '@angular/cdk/overlay';

/** Menus, notices and tooltips lie in a landmark of their own, as all else does (WAI-ARIA APG, landmark regions). */
@Injectable()
export class OverlayLandmark extends OverlayContainer {
  protected override _createContainer(): void {
    super._createContainer();
    this._containerElement?.setAttribute('role', 'region');
    this._containerElement?.setAttribute('aria-label', 'Menus and notices');
  }
}
