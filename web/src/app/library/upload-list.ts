import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import { BROUGHT_IN } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Passwords, wantsPassword } from '../dialogs/passwords';
import { LibraryActions } from './library-actions';
import { NamingChoice } from './naming-choice';
import { libraryActions, type Upload } from './library.reducer';
import { wordsAbout } from './notice-words';

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

  private readonly store = inject(Store);
  private readonly passwords = inject(Passwords);
  private readonly naming = inject(NamingChoice);
  private readonly actions = inject(LibraryActions);
  protected readonly wordsAbout = wordsAbout;

  protected readonly allEnded = computed(() =>
    this.uploads().every(({ state }) => state === 'done' || state === 'failed'),
  );
  protected readonly heading = computed(() => {
    const total = this.uploads().length;
    const done = this.uploads().filter(({ state }) => state === 'done').length;
    return `Brought in ${done} of ${total}`;
  });

  /** What failed wants something of one; it must not lie below a hundred that did not. */
  protected readonly inOrder = computed(() => {
    const failed = this.uploads().filter(({ state }) => state === 'failed');
    return [...failed, ...this.uploads().filter(({ state }) => state !== 'failed')];
  });

  /** What is chosen here holds for what comes next as well. */
  protected callBy({ document, name }: Upload, title: string): void {
    if (!document) return;
    const isFile =
      name
        .replace(BROUGHT_IN, '')
        .replace(/[_\s]+/g, ' ')
        .trim() === title;
    this.naming.choose(isFile ? 'file' : 'title');
    this.actions.rename(document, title);
  }

  protected readonly isLocked = ({ trouble }: Upload): boolean => wantsPassword(trouble?.code);

  protected async unlock({ id, name, trouble }: Upload): Promise<void> {
    const password = await this.passwords.ask(name, trouble?.code === 'pdf-password-wrong');
    if (password !== undefined) this.store.dispatch(libraryActions.passwordGiven({ id, password }));
  }
}
