import type { Signal } from '@angular/core';
import type { Look, Paragraph, ParagraphLook } from '@stylet/core/typed';

/** The text that is being edited, as what changes its look needs it. */
export interface TextInHand {
  /** The look of what is selected, as far as it is the same; and that of its paragraph. */
  readonly look: Signal<Partial<Look>>;
  readonly paragraph: Signal<ParagraphLook>;
  /** The notation of the formula that is selected or beside the caret; empty where there is none. */
  readonly formula: Signal<string>;
  /** Gives selected words a look, or those that are typed next. */
  setLook(look: Partial<Look>): void;
  toggle(key: 'bold' | 'italic' | 'underline' | 'strike'): void;
  setParagraphs(change: (look: ParagraphLook) => ParagraphLook): void;
  /** Puts a formula in TeX notation there, or in place of the one that is there. */
  putFormula(source: string): void;
  /** All paragraphs are others now; one step of what can be undone here. */
  replaceAll(paragraphs: readonly Paragraph[]): void;
  /** Somebody else has gone on with them: the caret stays where it is among the words. */
  goOnWith(paragraphs: readonly Paragraph[]): void;
  /** Has lines end where they are laid out to, once more. */
  lay(): void;
  /** Has the keyboard here, unless a menu has it, which gives it back. */
  focus(): void;
  takeKeyboard(): void;
}
