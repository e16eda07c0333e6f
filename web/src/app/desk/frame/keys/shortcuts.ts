import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { Editing } from '../../platform/document/editing';
import { CloseUp } from '../../features/close-up/close-up';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import { Finding } from '../../features/find/finding';
import { Guides } from '../../features/guides/guides';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Clipboard } from '../../platform/selection/clipboard';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { Cropping } from '../../features/crop/cropping';
import { Snipping } from '../../features/snip/snipping';
import { Marking } from '../../platform/selection/marking';
import { TextSelection } from '../../platform/selection/text-selection';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { isTyping } from '../../platform/input/typing';
import { DarkPages } from '../../platform/paper/dark-pages';
import { Presenting } from '../../features/presenting/presenting';
import { Companion } from '../../features/companion/companion';
import { ReadAloud } from '../../features/read-aloud/read-aloud';
import { ReadingLine } from '../../features/reading-line/reading-line';
import { ViewState } from '../../platform/view/view-state';

const NUDGES: Partial<Record<string, readonly [number, number]>> = {
  arrowleft: [-1, 0],
  arrowright: [1, 0],
  arrowup: [0, -1],
  arrowdown: [0, 1],
};

/** Keys on the desk. Fields that take text keep theirs. */
@Injectable()
export class Shortcuts {
  private readonly dark = inject(DarkPages);
  private readonly presenting = inject(Presenting);
  private readonly companion = inject(Companion);
  private readonly readingLine = inject(ReadingLine);
  private readonly readAloud = inject(ReadAloud);
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly view = inject(ViewState);
  private readonly selection = inject(TextSelection);
  private readonly marking = inject(Marking);
  private readonly chosen = inject(AnnotationSelection);
  private readonly actions = inject(SelectionActions);
  private readonly clipboard = inject(Clipboard);
  private readonly pages = inject(PagesOnScreen);
  private readonly landmarks = inject(LandmarkActions);
  private readonly cropping = inject(Cropping);
  private readonly snipping = inject(Snipping);
  private readonly finding = inject(Finding);
  private readonly guides = inject(Guides);
  private readonly closeUp = inject(CloseUp);
  private readonly dialog = inject(MatDialog);
  private readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  private readonly mode = this.store.selectSignal(kitFeature.selectMode);

  down(event: KeyboardEvent): void {
    // What a menu takes is not meant for the desk; a tooltip that hides is no reason to do nothing.
    if (document.querySelector('.mat-mdc-menu-panel')) return;
    if (isTyping(event.target) || this.dialog.openDialogs.length > 0) return;
    const action = this.actionFor(event);
    if (!action || (this.view.isBoardOpen() && !isForBoardToo(event))) return;
    event.preventDefault();
    action();
  }

  up(event: KeyboardEvent): void {
    if (event.key === ' ') this.view.isSpaceHeld.set(false);
  }

  private actionFor(event: KeyboardEvent): (() => void) | undefined {
    const key = event.key.toLowerCase();
    if (event.ctrlKey || event.metaKey) return this.withControl(key, event.shiftKey);
    if (event.altKey) {
      if (key === 'arrowleft') return () => this.view.back();
      if (key === 'arrowright') return () => this.view.forward();
      return undefined;
    }
    const nudge = NUDGES[key];
    if (nudge && this.chosen.pageId()) {
      const step = event.shiftKey ? 10 : 1;
      return () => this.actions.transform([1, 0, 0, 1, step * nudge[0], step * nudge[1]]);
    }
    const slot = /^[1-9]$/.test(key) ? this.slots()[Number(key) - 1] : undefined;
    if (slot) return () => this.store.dispatch(kitActions.slotTaken({ id: slot.id }));
    switch (key) {
      case 'e':
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'eraser' }));
      case 'l':
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'lasso' }));
      case 's':
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'snip' }));
      case 'i':
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'picture' }));
      case 'p':
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'gap' }));
      case 'g':
        return () => this.guides.toggle('ruler');
      case 'h':
        return () => this.guides.toggle('setSquare');
      case 'o':
        return () => this.view.isBoardOpen.update((isOpen) => !isOpen);
      case 'c':
        return () => this.closeUp.toggle();
      case 'd':
        return () => this.dark.toggle();
      case 'a':
        if (this.readAloud.isOn()) return () => this.readAloud.pauseOrGoOn();
        return () => void this.readAloud.startAtSelection();
      case 't':
        return () => void this.readingLine.toggle();
      case 'arrowdown':
      case 'arrowup':
        if (!this.readingLine.isOn()) return undefined;
        return () => void this.readingLine.step(key === 'arrowdown' ? 1 : -1);
      case 'n':
        return () => void this.companion.toggle();
      case 'f':
        return () => this.presenting.start();
      case 'b':
        return () => void this.landmarks.toggleBookmark();
      case 'delete':
      case 'backspace':
        if (this.chosen.pageId()) return () => this.actions.remove();
        return this.selection.selected() ? () => this.marking.unmark() : undefined;
      case 'enter':
        return this.cropping.picture() ? () => this.cropping.done() : undefined;
      case 'escape':
        if (this.cropping.picture()) return () => this.cropping.cancel();
        if (this.finding.isOpen()) return () => this.finding.close();
        if (this.snipping.current()) return () => this.snipping.current.set(undefined);
        if (this.selection.selected()) return () => this.selection.clear();
        if (this.chosen.pageId()) return () => this.chosen.clear();
        return () => this.store.dispatch(kitActions.toolTaken({ tool: 'pen' }));
      case 'r': {
        const mode = this.mode() === 'read' ? 'write' : 'read';
        return () => this.store.dispatch(kitActions.modeChosen({ mode }));
      }
      case ' ':
        return isButton(event.target) ? undefined : () => this.view.isSpaceHeld.set(true);
      case '?':
        return () => void this.openHelp();
      default:
        return undefined;
    }
  }

  private withControl(key: string, shift: boolean): (() => void) | undefined {
    switch (key) {
      case 'v':
        // Without Shift the browser says what is on the clipboard.
        return shift ? () => this.clipboard.pasteInPlace() : undefined;
      case 'f':
        return () => this.finding.open();
      case 'd':
        return this.chosen.pageId() ? () => this.actions.duplicate() : undefined;
      case 'a':
        return this.mode() === 'write' ? () => this.selectPage() : undefined;
      case 'z':
        return shift ? () => this.editing.redo() : () => this.editing.undo();
      case 'c':
        return this.selection.selected() ? () => void this.selection.copy() : undefined;
      case 'y':
        return () => this.editing.redo();
      case '+':
      case '=':
        return () => this.view.zoomTo(this.view.zoom() * 1.25);
      case '-':
        return () => this.view.zoomTo(this.view.zoom() / 1.25);
      case '0':
        return () => this.view.fit('width');
      default:
        return undefined;
    }
  }

  private selectPage(): void {
    const page = this.pages.current();
    if (!page) return;
    this.store.dispatch(kitActions.toolTaken({ tool: 'lasso' }));
    this.chosen.takePage(page.id);
  }

  async openHelp(): Promise<void> {
    const { HelpDialog } = await import('./help-dialog');
    this.dialog.open(HelpDialog);
  }
}

/** What the desk's keys do while the page board lies over the pages, which has keys of its own. */
const isForBoardToo = ({ key, ctrlKey, metaKey }: KeyboardEvent): boolean =>
  ctrlKey || metaKey ? 'zyf'.includes(key.toLowerCase()) : 'o?'.includes(key.toLowerCase());

/** What the space bar presses. */
const isButton = (target: EventTarget | null): boolean =>
  target instanceof HTMLButtonElement || target instanceof HTMLInputElement;
