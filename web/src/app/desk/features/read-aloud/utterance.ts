/** Something that is being spoken. */
export interface Utterance {
  /** Settles when it has been spoken to its end or was stopped; fails when it cannot be spoken. */
  readonly done: Promise<void>;
  pause(): void;
  resume(): void;
  stop(): void;
  /** From now on, as a multiple of the usual speed. */
  setRate(rate: number): void;
}

/** How a sentence is to be spoken, and who is told of the place (UTF-16 units) that has been reached. */
export interface SpeechOrder {
  readonly text: string;
  readonly voice: string;
  readonly rate: number;
  readonly reached: (place: number) => void;
}
