import { ApplicationRef, Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import type { Command, CommandEntry } from '../../platform/feature/commands';
import { Registered } from '../../platform/feature/registered';
import { isTyping } from '../../platform/input/typing';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { OpenCards } from '../../platform/kit/open-card';
import { ViewState } from '../../platform/view/view-state';

/** What a key may do, those that are asked first before the others. */
interface Taker {
  readonly rank: number;
  readonly isForBoardToo: boolean;
  readonly command: () => Command;
}

/** Keys on the desk. Fields that take text keep theirs. */
@Injectable()
export class Shortcuts {
  private readonly app = inject(ApplicationRef);
  private readonly registered = inject(Registered);
  private readonly store = inject(Store);
  private readonly cards = inject(OpenCards);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  private readonly view = inject(ViewState);
  private readonly dialog = inject(MatDialog);
  private readonly takers = this.byKey();

  down(event: KeyboardEvent): void {
    // What a menu takes is not meant for the desk; a tooltip that hides is no reason to do nothing.
    if (document.querySelector('.mat-mdc-menu-panel')) return;
    if (isTyping(event.target) || this.dialog.openDialogs.length > 0) return;
    // Held, it moves the pages; a button is pressed by it.
    if (event.key === ' ' && !isPressedBySpace(event.target)) {
      if (this.view.isBoardOpen()) return;
      event.preventDefault();
      this.view.isSpaceHeld.set(true);
      return;
    }
    const command = this.commandFor(event);
    if (!command) return;
    event.preventDefault();
    command.run();
    // What it opens is there, and has the focus, before the next key comes: on a busy machine letters went to the desk instead.
    this.app.tick();
  }

  up(event: KeyboardEvent): void {
    if (event.key === ' ') this.view.isSpaceHeld.set(false);
  }

  private commandFor(event: KeyboardEvent): Command | undefined {
    for (const chord of chordsOf(event))
      for (const { isForBoardToo, command } of this.takers.get(chord) ?? []) {
        if (this.view.isBoardOpen() && !isForBoardToo) continue;
        const found = command();
        if (found.can?.() ?? true) return found;
      }
    return undefined;
  }

  private byKey(): ReadonlyMap<string, readonly Taker[]> {
    const takers = new Map<string, Taker[]>();
    const add = (key: string, taker: Taker): void =>
      void takers.set(key, [...(takers.get(key) ?? []), taker]);
    const { commands, tools, aids } = this.registered;
    for (const entry of commands) for (const key of entry.keys ?? []) add(key, this.takerOf(entry));
    for (const { id, key, opensCard } of tools) {
      const run = (): void => {
        // Where what it lays down comes from the card, the key of what is in hand opens that.
        if (opensCard && this.tool() === id)
          // What puts cards away when another tool is taken has run by then.
          setTimeout(() => this.cards.id.update((open) => (open === id ? undefined : id)));
        else this.store.dispatch(kitActions.toolTaken({ tool: id }));
      };
      if (key) add(key.toLowerCase(), { ...ofTheDesk, command: () => ({ run }) });
    }
    for (const aid of aids) {
      const run = (): void => this.registered.aidOf(aid).toggle();
      add(aid.key.toLowerCase(), { ...ofTheDesk, command: () => ({ run }) });
    }
    for (const list of takers.values()) list.sort((a, b) => b.rank - a.rank);
    return takers;
  }

  private takerOf(entry: CommandEntry): Taker {
    return {
      rank: entry.rank ?? 0,
      // The board lies over the pages, and has keys of its own.
      isForBoardToo: entry.isForBoardToo ?? false,
      command: () => this.registered.commandOf(entry),
    };
  }
}

const ofTheDesk = { rank: 0, isForBoardToo: false };

/** The names of a key with what is held besides: with Shift first, then without. */
function chordsOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): string[] {
  const held = ctrlKey || metaKey ? 'ctrl+' : altKey ? 'alt+' : '';
  const name = key.toLowerCase();
  return shiftKey ? [`${held}shift+${name}`, `${held}${name}`] : [`${held}${name}`];
}

const isPressedBySpace = (target: EventTarget | null): boolean =>
  target instanceof HTMLButtonElement || target instanceof HTMLInputElement;
