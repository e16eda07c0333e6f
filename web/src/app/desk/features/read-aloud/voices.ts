import { Injectable, computed, inject, signal } from '@angular/core';
import type { Voice } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { BrowserSpeech } from './browser-speech';
import { ServerSpeech } from './server-speech';
import type { Utterance } from './utterance';
import { accountStorage } from '../../../storage/account';

/** A voice that can be chosen: this browser's, or the server's. */
export interface ChoosableVoice extends Voice {
  readonly isServers: boolean;
}

/** Where this browser keeps which voice was chosen. */
const KEY = 'stylet.voice';

/** The voices that read aloud. */
@Injectable({ providedIn: 'root' })
export class Voices {
  private readonly api = inject(Api);
  private readonly browser = inject(BrowserSpeech);
  private readonly server = inject(ServerSpeech);
  private readonly servers = signal<readonly Voice[]>([]);
  private readonly wanted = signal(accountStorage.getItem(KEY) ?? '');

  /** This browser's first: they are the better ones. Those of this browser's languages before others. */
  readonly all = computed<readonly ChoosableVoice[]>(() => {
    const own = this.browser.voices().map((voice) => ({ ...voice, isServers: false }));
    const others = this.servers().map((voice) => ({ ...voice, isServers: true }));
    return [...own, ...others].sort(
      (a, b) => Number(a.isServers) - Number(b.isServers) || foreign(a) - foreign(b),
    );
  });
  readonly chosen = computed<ChoosableVoice | undefined>(
    () => this.all().find(({ id }) => id === this.wanted()) ?? this.all()[0],
  );

  /** Asks the server for its voices, once. */
  async load(): Promise<void> {
    if (this.servers().length > 0) return;
    this.servers.set(await firstValueFrom(this.api.voices()));
  }

  choose(id: string): void {
    this.wanted.set(id);
    accountStorage.setItem(KEY, id);
  }

  /** Has the chosen voice speak. */
  speak(text: string, rate: number, reached: (place: number) => void): Utterance {
    const voice = this.chosen()!;
    const order = { text, voice: voice.id, rate, reached };
    return voice.isServers ? this.server.speak(order) : this.browser.speak(order);
  }

  /** Makes ready what will be spoken next. */
  prepare(text: string): void {
    const voice = this.chosen();
    if (voice?.isServers) this.server.prepare(text, voice.id);
  }
}

/** How far a voice is from what this browser's languages are: its place among them. */
function foreign({ language }: Voice): number {
  const [wanted] = language.toLowerCase().split('-');
  const at = navigator.languages.findIndex((own) => own.toLowerCase().split('-')[0] === wanted);
  const isExact = navigator.languages.some((own) => own.toLowerCase() === language.toLowerCase());
  return at < 0 ? 1000 : 2 * at + (isExact ? 0 : 1);
}
