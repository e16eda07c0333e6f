import type { Inject } from './inject';

/** Something that can be done on the desk. */
export interface Command {
  run(): void;
  /** Whether it has something to do now: if not, a key goes to who has it next. Left out, it always has. */
  can?(): boolean;
  /** Of something that is switched: whether it is on. */
  isOn?(): boolean;
  /** Whether a menu or a bar shows it; left out, it does. */
  isThere?(): boolean;
  /** What a menu calls it, where that changes. */
  name?(): string;
}

/** A row of the help sheet. */
export interface HelpRow {
  readonly keys: string;
  readonly does: string;
}

/** Where a menu or a bar of the desk shows a command. */
export interface MenuEntry {
  /** `more`: of the whole desk; `view`: how pages show; `index`: of the Index. */
  readonly in: 'more' | 'view' | 'index';
  readonly name: string;
  readonly icon?: string;
  /** Lower ones come first. */
  readonly order: number;
  /** Of the Index: whether it is offered where nothing is listed yet. */
  readonly isForEmpty?: boolean;
}

/** A button in the bar at the top. */
export interface ButtonEntry {
  readonly name: string;
  readonly icon: string;
  readonly tip?: string;
  readonly order: number;
  /** `words`: with its name; `roomy`: where there is room, and else in the menu. */
  readonly shows: 'icon' | 'words' | 'roomy';
}

export interface CommandEntry {
  readonly id: string;
  /** Like “escape”, “ctrl+f”, “shift+arrowup”; in lower case. Shift is left out where it makes no difference. */
  readonly keys?: readonly string[];
  /** What the help sheet says of it. */
  readonly help?: readonly HelpRow[];
  /** Of those with the same key, the one with the highest is asked first. */
  readonly rank?: number;
  /** Whether its keys do the same while the page board lies over the pages. */
  readonly isForBoardToo?: boolean;
  readonly menu?: MenuEntry;
  readonly button?: ButtonEntry;
  readonly command: Inject<Command>;
}
