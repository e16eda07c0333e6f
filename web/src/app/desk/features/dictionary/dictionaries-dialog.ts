import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import type { Dictionary } from '@stylet/core/api';
import { firstValueFrom, type Observable } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';

/** The dictionaries in which words are looked up: more can be added as files. */
@Component({
  selector: 'stylet-dictionaries-dialog',
  imports: [MatButtonModule, MatDialogModule, MatIconModule],
  templateUrl: './dictionaries-dialog.html',
  styleUrl: './dictionaries-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DictionariesDialog {
  private readonly api = inject(Api);
  protected readonly list = signal<readonly Dictionary[]>([]);
  protected readonly trouble = signal('');
  protected readonly isAdding = signal(false);
  /** The id of the one whose title is being changed. */
  protected readonly renaming = signal('');

  constructor() {
    void this.attempt(() => this.load());
  }

  protected async add(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])];
    input.value = '';
    if (files.length === 0) return;
    this.isAdding.set(true);
    await this.change(() => this.api.addDictionary(files));
    this.isAdding.set(false);
  }

  protected async rename({ id, title }: Dictionary, wanted: string): Promise<void> {
    if (this.renaming() !== id) return;
    this.renaming.set('');
    const words = wanted.trim().slice(0, 200);
    if (words === '' || words === title) return;
    await this.change(() => this.api.renameDictionary(id, words));
  }

  protected async remove({ id }: Dictionary): Promise<void> {
    await this.change(() => this.api.removeDictionary(id));
  }

  private change(work: () => Observable<unknown>): Promise<void> {
    return this.attempt(async () => {
      await firstValueFrom(work());
      await this.load();
    });
  }

  private async load(): Promise<void> {
    this.list.set(await firstValueFrom(this.api.dictionaries()));
  }

  private async attempt(work: () => Promise<void>): Promise<void> {
    this.trouble.set('');
    try {
      await work();
    } catch (error) {
      const { title, detail, advice } = troubleOf(error);
      this.trouble.set([`${title}.`, detail, advice].filter(Boolean).join(' '));
    }
  }
}
