import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import type { BegunDocument } from '../../kept/begun';
import { Outbox } from '../desk/platform/sync/outbox';
import { Passwords, wantsPassword } from '../dialogs/passwords';
import { KeptDocuments } from '../kept/kept-documents';
import { spokenDate } from '../library/sorting';
import { saveBlob } from '../storage/save-file';
import { BegunDocuments } from './begun-documents';
import { BegunSender } from './begun-sender';

/** Documents that have begun on this device, until the server has them. */
@Component({
  selector: 'stylet-begun-list',
  imports: [MatButtonModule, MatIconModule, RouterLink],
  templateUrl: './begun-list.html',
  styleUrl: './begun-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BegunList {
  private readonly begun = inject(BegunDocuments);
  private readonly kept = inject(KeptDocuments);
  private readonly outbox = inject(Outbox);
  private readonly sender = inject(BegunSender);
  private readonly passwords = inject(Passwords);
  private readonly dialog = inject(MatDialog);
  protected readonly list = this.begun.list;
  protected readonly isLocked = ({ refusal }: BegunDocument): boolean =>
    wantsPassword(refusal?.code);

  protected wordsFor({ isOpenable, at, refusal }: BegunDocument): string {
    const begun = `Begun here ${spokenDate(new Date(at).toISOString(), new Date())}`;
    return isOpenable || refusal ? begun : `${begun} · opens once the server has read it`;
  }

  protected sendAgain(begun: BegunDocument): void {
    void this.sender.sendAgain(begun);
  }

  protected async unlock(begun: BegunDocument): Promise<void> {
    const wasWrong = begun.refusal?.code === 'pdf-password-wrong';
    const password = await this.passwords.ask(begun.title, wasWrong);
    if (password !== undefined) await this.sender.sendAgain(begun, password);
  }

  protected save({ origin }: BegunDocument): void {
    if (origin.kind === 'file') saveBlob(origin.name, origin.file);
  }

  protected async letGo({ id, title }: BegunDocument): Promise<void> {
    const { askWhether } = await import('../dialogs/question-dialog');
    const isMeant = await askWhether(this.dialog, {
      title: `Let go of “${title}”?`,
      words: 'The server does not have it. What is written on it goes too. This cannot be undone.',
      action: 'Let go of it',
    });
    if (!isMeant) return;
    await this.outbox.drop(id);
    await this.begun.remove(id);
    await this.kept.remove(id);
  }
}
