import type { BoardSelection } from './board-selection';
import { isTyping } from '../../platform/input/typing';
import type { PageActions } from './page-actions';

export interface KeyTarget {
  across(): number;
  open(id: string): void;
  close(): void;
  duplicate(): void;
  paste(): void;
  putIn(): void;
  /** Brings a page into view and gives it the focus. */
  shown(id: string): void;
}

/** Keys on the page board. */
export class BoardKeys {
  constructor(
    private readonly selection: BoardSelection,
    private readonly actions: PageActions,
    private readonly target: KeyTarget,
  ) {}

  down(event: KeyboardEvent): void {
    if (event.defaultPrevented || isTyping(event.target) || isElsewhere(event.target)) return;
    const control = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    const action = control ? this.withControl(key) : this.plain(key, event);
    if (!action) return;
    event.preventDefault();
    action();
  }

  private plain(key: string, { shiftKey, altKey }: KeyboardEvent): (() => void) | undefined {
    const { selection, actions, target } = this;
    const ids = selection.ids();
    const focus = selection.focus();
    if (altKey) {
      const by = { arrowleft: -1, arrowright: 1 }[key] as -1 | 1 | undefined;
      return by && (() => actions.shift(ids, by));
    }
    const steps: Partial<Record<string, number>> = {
      arrowleft: -1,
      arrowright: 1,
      arrowup: -target.across(),
      arrowdown: target.across(),
      home: -Infinity,
      end: Infinity,
    };
    const step = steps[key];
    if (step !== undefined)
      return () => {
        selection.step(step, shiftKey);
        const now = selection.focus();
        if (now) target.shown(now);
      };
    switch (key) {
      case ' ':
        return focus === undefined ? undefined : () => selection.toggle(focus);
      case 'enter':
        return focus === undefined ? undefined : () => target.open(focus);
      case 'r':
        return () => actions.turn(ids, shiftKey ? 270 : 90);
      case 'insert':
        return () => target.putIn();
      case 'delete':
      case 'backspace':
        return () => actions.remove(ids);
      case 'escape':
        return () => target.close();
      default:
        return undefined;
    }
  }

  private withControl(key: string): (() => void) | undefined {
    const { selection, actions, target } = this;
    const ids = selection.ids();
    switch (key) {
      case 'a':
        return () => selection.takeAll();
      case 'd':
        return () => target.duplicate();
      case 'c':
        return () => void actions.hold(ids, false);
      case 'x':
        return () => void actions.hold(ids, true);
      case 'v':
        return () => target.paste();
      default:
        return undefined;
    }
  }
}

/** Buttons, panels and menus have keys of their own; a page that was moved has lost the focus to none. */
const isElsewhere = (target: EventTarget | null): boolean =>
  target instanceof Element && target !== document.body && !target.closest('[role="listbox"]');
