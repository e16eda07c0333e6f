import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { DarkPages } from './desk/platform/paper/dark-pages';
import { NewVersion } from './kept/new-version';
import { PlainHttp } from './secure/plain-http';
import { Icons } from './icons/icons';

@Component({
  selector: 'stylet-root',
  imports: [RouterOutlet],
  template: '<router-outlet />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class App {
  constructor() {
    inject(Icons).register();
    // Injected for its effect: it says on the document whether pages are dark.
    inject(DarkPages);
    inject(PlainHttp).tell();
    inject(NewVersion).watch();
  }
}
