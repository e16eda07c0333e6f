import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSlideToggleModule } from '@angular/material/slide-toggle';
import { RouterLink } from '@angular/router';
import { spokenDate } from '../library/sorting';
import { KeptBound, bounds } from './kept-bound';
import { KeptChoice } from './kept-choice';
import { KeptDocuments, type KeptSize } from './kept-documents';
import { spokenSize } from './spoken-size';

/** What is kept on this device, how much of it may be, and what stays. */
@Component({
  selector: 'stylet-on-this-device',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatSlideToggleModule, RouterLink],
  templateUrl: './on-this-device.html',
  styleUrl: './on-this-device.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OnThisDevice {
  private readonly kept = inject(KeptDocuments);
  private readonly choosing = inject(KeptChoice);
  protected readonly bound = inject(KeptBound);
  protected readonly rows = signal<readonly KeptSize[] | undefined>(undefined);
  /** Whether the browser has promised to keep it. */
  protected readonly isSafe = signal(true);
  protected readonly spokenSize = spokenSize;
  protected readonly used = computed(() =>
    (this.rows() ?? []).reduce((sum, { bytes }) => sum + bytes, 0),
  );
  protected readonly share = computed(() =>
    this.bound.bytes() === 0 ? 100 : Math.min(100, (100 * this.used()) / this.bound.bytes()),
  );
  protected readonly choices = computed(() =>
    [...new Set<number>([...bounds, this.bound.bytes()])].sort((a, b) => a - b),
  );
  protected readonly wordsFor = (bytes: number): string =>
    bytes === 0 ? 'Nothing' : spokenSize(bytes);

  constructor() {
    effect(() => {
      this.kept.states();
      void this.read();
    });
    void navigator.storage?.persisted?.().then((isSafe) => this.isSafe.set(isSafe));
  }

  protected factsOf({ bytes, used }: KeptSize): string {
    return `${spokenSize(bytes)} · open ${spokenDate(new Date(used).toISOString(), new Date())}`;
  }

  protected async limit(bytes: number): Promise<void> {
    this.bound.choose(bytes);
    await this.kept.trim();
  }

  protected choose({ id, title, isChosen }: KeptSize): void {
    void this.choosing.choose(id, title, !isChosen);
  }

  protected async letGo({ id }: KeptSize): Promise<void> {
    await this.kept.remove(id);
  }

  protected async askToKeep(): Promise<void> {
    this.isSafe.set(await navigator.storage.persist());
  }

  private async read(): Promise<void> {
    this.rows.set(await this.kept.sizes());
  }
}
