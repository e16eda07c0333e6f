import { Injectable, computed, inject, signal } from '@angular/core';
import type { Lookup } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';

/** What is known of a word that is looked up: nothing yet, what the dictionaries say, or why not. */
export interface LookedUp {
  readonly word: string;
  readonly found?: Lookup;
  readonly trouble?: Trouble;
}

/** The words that are looked up: one from a page, and those that it led to. */
@Injectable()
export class LookingUp {
  private readonly api = inject(Api);
  private readonly way = signal<readonly LookedUp[]>([]);
  readonly current = computed(() => this.way().at(-1));
  readonly canGoBack = computed(() => this.way().length > 1);
  /** Where the word is in the window. */
  readonly box = signal<DOMRect | undefined>(undefined);

  /** Looks up words that stand in a place of the window. */
  async begin(word: string, box: DOMRect): Promise<void> {
    this.box.set(box);
    this.way.set([]);
    await this.follow(word);
  }

  /** Goes on to another word. */
  async follow(word: string): Promise<void> {
    const step: LookedUp = { word };
    this.way.update((way) => [...way, step]);
    const known = await this.ask(word);
    this.way.update((way) => way.map((other) => (other === step ? known : other)));
  }

  back(): void {
    this.way.update((way) => way.slice(0, -1));
  }

  close(): void {
    this.way.set([]);
    this.box.set(undefined);
  }

  private async ask(word: string): Promise<LookedUp> {
    try {
      return { word, found: await firstValueFrom(this.api.lookUp(word)) };
    } catch (error) {
      return { word, trouble: troubleOf(error) };
    }
  }
}
