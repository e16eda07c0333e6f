import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { DarkPages } from './desk/platform/paper/dark-pages';
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
    // It says how everything is shown.
    inject(DarkPages);
    inject(PlainHttp).tell();
  }
}
