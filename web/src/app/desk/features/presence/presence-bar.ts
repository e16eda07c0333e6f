import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { ViewState } from '../../platform/view/view-state';
import { hueOf, type Other } from './others';
import { Presence } from './presence';

/** Who else has the document open, in a corner of the view; and whom one follows. */
@Component({
  selector: 'stylet-presence-bar',
  imports: [MatButtonModule, MatMenuModule],
  template: `
    @for (other of presence.others(); track other.window) {
      <button
        class="other"
        [style.--hue]="hueOf(other)"
        [class.followed]="other.window === presence.followed()?.window"
        [matMenuTriggerFor]="menu"
        [attr.aria-label]="nameOf(other)"
        [title]="nameOf(other)"
      >
        {{ initialOf(other) }}
      </button>
      <mat-menu #menu="matMenu">
        <button mat-menu-item disabled>{{ nameOf(other) }}</button>
        <button mat-menu-item (click)="presence.goTo(other)">Go there</button>
        @if (other.window === presence.followed()?.window) {
          <button mat-menu-item (click)="presence.stopFollowing()">Stop following</button>
        } @else {
          <button mat-menu-item (click)="presence.follow(other.window)">Follow</button>
        }
        <button mat-menu-item (click)="presence.hide(!presence.isHidden())">
          {{ presence.isHidden() ? 'Let others see me' : 'Hide me from others' }}
        </button>
      </mat-menu>
    }
    @if (presence.followed(); as followed) {
      <span class="following" [style.--hue]="hueOf(followed)" role="status">
        Following {{ followed.name }}
        <button mat-button (click)="presence.stopFollowing()">Stop</button>
      </span>
    }
  `,
  styles: `
    :host {
      align-items: flex-end;
      display: flex;
      flex-direction: column;
      gap: 6px;
      position: absolute;
      right: 18px;
      bottom: 14px;
      z-index: 4;
    }

    .other {
      background: var(--surface);
      border: 3px solid var(--hue);
      border-radius: 10px;
      box-shadow: 0 1px 4px rgb(34 48 74 / 25%);
      color: var(--ink);
      cursor: pointer;
      font: inherit;
      font-weight: 700;
      height: 40px;
      padding: 0;
      width: 40px;
    }

    .followed {
      background: var(--hue);
      color: #fff;
    }

    .following {
      align-items: center;
      background: var(--surface);
      border-left: 4px solid var(--hue);
      border-radius: 8px;
      box-shadow: 0 1px 4px rgb(34 48 74 / 25%);
      display: flex;
      padding-left: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'Who else is here' },
})
export class PresenceBar {
  protected readonly presence = inject(Presence);
  private readonly view = inject(ViewState);

  protected readonly hueOf = hueOf;

  protected initialOf({ name }: Other): string {
    return [...name][0]?.toUpperCase() ?? '?';
  }

  protected nameOf({ name, place }: Other): string {
    const page = this.view.pages().find(({ id }) => id === place?.pageId);
    return page ? `${name}, on page ${page.label}` : name;
  }
}
