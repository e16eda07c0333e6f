declare module '@echogarden/espeak-ng-emscripten' {
  /** Something that happens at a time (ms) of the audio, and where in the text, in characters from 1. */
  interface SpeechEvent {
    readonly type: 'samplerate' | 'sentence' | 'word' | 'phoneme' | 'end' | 'mark';
    readonly text_position: number;
    readonly audio_position: number;
  }
  interface Synthesizer {
    list_voices(): readonly {
      readonly name: string;
      readonly identifier: string;
      readonly languages: readonly { readonly name: string }[];
    }[];
    set_voice(identifier: string): number;
    get_samplerate(): number;
    synthesize(
      text: string,
      piece: (audio: Int16Array | null, events: readonly SpeechEvent[]) => boolean,
    ): void;
  }
  export default function load(): Promise<{ eSpeakNGWorker: new () => Promise<Synthesizer> }>;
}
