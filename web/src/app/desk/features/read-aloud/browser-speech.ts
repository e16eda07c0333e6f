import { Injectable, signal } from '@angular/core';
import type { Voice } from '@stylet/core/api';
import type { SpeechOrder, Utterance } from './utterance';

/** The voices of this browser (W3C Web Speech API, “SpeechSynthesis”). */
@Injectable({ providedIn: 'root' })
export class BrowserSpeech {
  private readonly synthesis = globalThis.speechSynthesis as SpeechSynthesis | undefined;
  private readonly own = signal<readonly SpeechSynthesisVoice[]>([]);
  readonly voices = (): Voice[] =>
    this.own().map(({ voiceURI, name, lang }) => ({ id: voiceURI, name, language: lang }));

  constructor() {
    if (!this.synthesis) return;
    const read = (): void => this.own.set(this.synthesis!.getVoices());
    read();
    // Browsers that ask the system come to know their voices later.
    this.synthesis.addEventListener('voiceschanged', read);
  }

  speak({ text, voice, rate, reached }: SpeechOrder): Utterance {
    const synthesis = this.synthesis!;
    const chosen = this.own().find(({ voiceURI }) => voiceURI === voice);
    let current: SpeechSynthesisUtterance | undefined;
    let place = 0;
    let finish: () => void = () => undefined;
    let fail: (error: Error) => void = () => undefined;
    const done = new Promise<void>((resolve, reject) => ([finish, fail] = [resolve, reject]));
    const begin = (from: number, speed: number): void => {
      const utterance = new SpeechSynthesisUtterance(text.slice(from));
      current = utterance;
      if (chosen) {
        utterance.voice = chosen;
        utterance.lang = chosen.lang;
      }
      utterance.rate = speed;
      utterance.onboundary = ({ name, charIndex }) => {
        if (name !== 'word' || utterance !== current) return;
        place = from + charIndex;
        reached(place);
      };
      // What another has taken the place of is not listened to any more.
      utterance.onend = () => utterance === current && finish();
      utterance.onerror = ({ error }) => {
        if (utterance !== current) return;
        fail(new Error(`This voice does not speak (${error}). Choose another one.`));
      };
      synthesis.speak(utterance);
    };
    begin(0, rate);
    return {
      done,
      pause: () => synthesis.pause(),
      resume: () => synthesis.resume(),
      stop: () => {
        current = undefined;
        synthesis.cancel();
        // One that was paused would keep the next one waiting.
        synthesis.resume();
        finish();
      },
      setRate: (speed) => {
        const wasPaused = synthesis.paused;
        current = undefined;
        synthesis.cancel();
        begin(place, speed);
        if (wasPaused) synthesis.pause();
      },
    };
  }
}
