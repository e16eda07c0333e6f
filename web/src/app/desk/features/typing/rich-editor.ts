import { Injectable, inject, signal } from '@angular/core';
import { bodyOfBox, roomInBox } from '@stylet/core/document';
import { isSame } from '@stylet/core/same';
import type { Body, Family, Look, Paragraph, ParagraphLook } from '@stylet/core/typed';
import { facesIn } from '@stylet/core/typesetting';
import { baseKeymap, chainCommands, splitBlockKeepMarks } from 'prosemirror-commands';
import { history } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { EditorState, type Command, type Plugin } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { goOnWith } from '../../platform/typed/going-on-with';
import { formulaAt, putFormula, typedFormulas } from '../../platform/typed/formula-commands';
import { LINES, laidParagraphs, settingLines } from '../../platform/typed/line-decorations';
import { copiedText, docOf, paragraphsOf } from '../../platform/typed/rich-model';
import {
  endList,
  leaveList,
  lookAt,
  paragraphAt,
  setLook,
  setParagraphs,
  toggleLook,
} from '../../platform/typed/text-commands';
import { textKeys } from '../../platform/typed/text-keys';
import { TypedFonts, cssFamily } from '../../platform/typed/typed-fonts';
import { Typesetting } from '../../platform/typed/typesetting';
import type { TextInHand } from './text-in-hand';
import { Typing } from './typing';

/** What the browser edits: the text of the box that is typed in. */
@Injectable()
export class RichEditor implements TextInHand {
  private readonly typing = inject(Typing);
  private readonly typedFonts = inject(TypedFonts);
  private readonly typesetting = inject(Typesetting);
  private view: EditorView | undefined;
  readonly cssFamily: (family: Family) => string = cssFamily;
  // From letter to letter both stay as they are: then no bar is made anew.
  readonly look = signal<Partial<Look>>({}, { equal: isSame });
  readonly paragraph = signal<ParagraphLook>({}, { equal: isSame });
  readonly formula = signal('');

  /** Shows what is typed in, in an element, and has the keyboard there. */
  show(host: HTMLElement): void {
    this.view = new EditorView(host, {
      state: EditorState.create({
        doc: docOf(this.typing.box()!.paragraphs),
        plugins: this.plugins(),
      }),
      attributes: {
        'aria-label': 'Typed text',
        'aria-multiline': 'true',
        role: 'textbox',
        spellcheck: 'true',
      },
      clipboardTextSerializer: copiedText,
      dispatchTransaction: (transaction) => {
        const { view } = this;
        if (!view) return;
        view.updateState(view.state.apply(transaction));
        if (transaction.docChanged) this.typing.typed(paragraphsOf(view.state.doc));
        this.told();
      },
    });
    this.view.focus();
    this.lay();
    this.told();
  }

  hide(): void {
    this.view?.destroy();
    this.view = undefined;
  }

  lay(): void {
    this.view?.dispatch(this.view.state.tr.setMeta(LINES, true).setMeta('addToHistory', false));
  }

  fonts(body: Body): void {
    this.typedFonts.need(facesIn(body));
  }

  setLook(look: Partial<Look>): void {
    this.run(setLook(look));
  }

  toggle(key: 'bold' | 'italic' | 'underline' | 'strike'): void {
    this.run(toggleLook(key, () => this.base()));
  }

  setParagraphs(change: (look: ParagraphLook) => ParagraphLook): void {
    this.run(setParagraphs(change));
  }

  putFormula(source: string): void {
    this.run(putFormula(source));
  }

  replaceAll(paragraphs: readonly Paragraph[]): void {
    const { view } = this;
    if (!view) return;
    const { content } = docOf(paragraphs);
    view.dispatch(view.state.tr.replaceWith(0, view.state.doc.content.size, content));
  }

  goOnWith(paragraphs: readonly Paragraph[]): void {
    const { view } = this;
    if (!view) return;
    const { tr } = view.state;
    view.dispatch(goOnWith(tr, docOf(paragraphs)).setMeta('addToHistory', false));
  }

  takeKeyboard(): void {
    this.view?.focus();
  }

  focus(): void {
    if (!document.querySelector('.mat-mdc-menu-panel')) this.view?.focus();
  }

  private run(command: Command): void {
    const { view } = this;
    if (!view) return;
    command(view.state, view.dispatch);
    this.focus();
  }

  private base(): Look {
    return bodyOfBox(this.typing.box()!).look;
  }

  private told(): void {
    const { view } = this;
    if (!view || !this.typing.box()) return;
    this.look.set(lookAt(view.state, this.base()));
    this.paragraph.set(paragraphAt(view.state));
    this.formula.set(formulaAt(view.state)?.source ?? '');
  }

  private plugins(): Plugin[] {
    return [
      history(),
      keymap({
        ...textKeys(
          () => this.base(),
          () => this.typing.end(),
        ),
        Enter: chainCommands(endList, splitBlockKeepMarks),
        Backspace: leaveList,
      }),
      keymap({ ...baseKeymap, Backspace: chainCommands(leaveList, baseKeymap['Backspace']) }),
      typedFormulas(this.typesetting),
      this.lines(),
    ];
  }

  private lines(): Plugin {
    return settingLines((doc, transaction) => {
      const box = this.typing.box();
      if (!box || (transaction && !transaction.docChanged && !transaction.getMeta(LINES)))
        return undefined;
      const layout = this.typesetting.layout(
        { ...bodyOfBox(box), paragraphs: paragraphsOf(doc) },
        roomInBox(box),
      );
      return layout ? laidParagraphs(doc, layout) : [];
    });
  }
}
