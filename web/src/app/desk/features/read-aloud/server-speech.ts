import { Injectable, inject } from '@angular/core';
import type { Speech } from '@stylet/core/api';
import { LRUCache } from 'lru-cache';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import type { SpeechOrder, Utterance } from './utterance';

/** Sentences kept that were asked for before their turn. */
const KEPT = 4;

/** The server's voices, played here. */
@Injectable({ providedIn: 'root' })
export class ServerSpeech {
  private readonly api = inject(Api);
  private readonly ready = new LRUCache<string, Promise<Speech>>({ max: KEPT });

  /** Asks for a sentence before its turn. */
  prepare(text: string, voice: string): void {
    // Fetched ahead: its failure is told when it is to be spoken.
    this.ask(text, voice).catch(() => undefined);
  }

  speak({ text, voice, rate, reached }: SpeechOrder): Utterance {
    const player = new Audio();
    let [speed, isPaused, frame] = [rate, false, 0];
    let finish: () => void = () => undefined;
    let fail: (error: Error) => void = () => undefined;
    const done = new Promise<void>((resolve, reject) => ([finish, fail] = [resolve, reject]));
    const play = (): void => {
      // To pause before it has begun is no failure.
      player.play().catch((error: unknown) => {
        if (!isPaused) fail(error instanceof Error ? error : new Error(String(error)));
      });
    };
    player.onended = () => finish();
    player.onerror = () => fail(new Error('This browser cannot play what the voice says.'));
    this.ask(text, voice).then(({ audio, marks }) => {
      player.src = `data:audio/wav;base64,${audio}`;
      player.playbackRate = speed;
      const follow = (): void => {
        const mark = marks.findLast(({ at }) => at <= player.currentTime * 1000);
        if (mark) reached(mark.place);
        frame = requestAnimationFrame(follow);
      };
      follow();
      if (!isPaused) play();
    }, fail);
    const end = (): void => {
      cancelAnimationFrame(frame);
      player.pause();
    };
    done.then(end, end);
    return {
      done,
      pause: () => {
        isPaused = true;
        player.pause();
      },
      resume: () => {
        isPaused = false;
        if (player.src) play();
      },
      stop: () => {
        // What comes after this is not played.
        isPaused = true;
        finish();
      },
      setRate: (wanted) => {
        speed = wanted;
        player.playbackRate = wanted;
      },
    };
  }

  private ask(text: string, voice: string): Promise<Speech> {
    const key = `${voice} ${text}`;
    let asked = this.ready.get(key);
    if (!asked) {
      asked = firstValueFrom(this.api.speech({ text, voice }));
      asked.catch(() => this.ready.delete(key));
      this.ready.set(key, asked);
    }
    return asked;
  }
}
