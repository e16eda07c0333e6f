import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { noteLook } from '@stylet/core/document';
import type { Look, Paragraph, ParagraphLook } from '@stylet/core/typed';
import { baseKeymap, chainCommands, splitBlockKeepMarks } from 'prosemirror-commands';
import { history } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import type { Mark, Node } from 'prosemirror-model';
import { EditorState, type Command } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { goOnWith } from '../../platform/typed/going-on-with';
import {
  copiedText,
  docOf,
  lookIn,
  paragraphOf,
  paragraphsOf,
  sourceOf,
} from '../../platform/typed/rich-model';
import {
  endList,
  leaveList,
  listed,
  lookAt,
  paragraphAt,
  setParagraphs,
  toggleLook,
} from '../../platform/typed/text-commands';
import { textKeys } from '../../platform/typed/text-keys';
import { NoteInHand } from './note-in-hand';
import { cssOfLook, cssOfParagraph } from './rich-looks';

/** The words of the note in hand, as they are typed. */
@Component({
  selector: 'stylet-note-editor',
  imports: [MatButtonModule, MatIconModule],
  templateUrl: './note-editor.html',
  styleUrl: './note-editor.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(click)': '$event.stopPropagation()',
    '(keydown)': '$event.stopPropagation()',
  },
})
export class NoteEditor {
  readonly label = input.required<string>();
  readonly done = output();

  private readonly hand = inject(NoteInHand);
  private readonly place = viewChild.required<ElementRef<HTMLElement>>('place');
  private view: EditorView | undefined;
  protected readonly look = signal<Partial<Look>>({});
  protected readonly list = signal<ParagraphLook['list']>(undefined);
  protected readonly isEmpty = signal(true);
  protected readonly looks = LOOKS;

  constructor() {
    afterNextRender(() => this.show());
    inject(DestroyRef).onDestroy(() => {
      this.hand.goOnWith = () => undefined;
      this.view?.destroy();
      this.view = undefined;
    });
  }

  protected toggle(key: 'bold' | 'italic' | 'underline'): void {
    this.run(toggleLook(key, () => noteLook));
  }

  protected toggleList(list: 'bullet' | 'number'): void {
    this.run(setParagraphs((look) => listed(look, list)));
  }

  private run(command: Command): void {
    const { view } = this;
    if (!view) return;
    command(view.state, view.dispatch);
    view.focus();
  }

  private show(): void {
    const note = this.hand.note();
    if (!note) return;
    this.view = new EditorView(this.place().nativeElement, {
      state: EditorState.create({ doc: docOf(note.paragraphs), plugins: this.plugins() }),
      attributes: {
        'aria-label': this.label(),
        'aria-multiline': 'true',
        role: 'textbox',
        spellcheck: 'true',
      },
      clipboardTextSerializer: copiedText,
      nodeViews: { paragraph: paragraphView, formula: formulaView },
      markViews: Object.fromEntries(MARKS.map((key) => [key, markView])),
      dispatchTransaction: (transaction) => {
        const { view } = this;
        if (!view) return;
        view.updateState(view.state.apply(transaction));
        if (transaction.docChanged) this.hand.typed(paragraphsOf(view.state.doc));
        this.told();
      },
    });
    this.hand.goOnWith = (paragraphs: readonly Paragraph[]) => {
      const { view } = this;
      if (view)
        view.dispatch(goOnWith(view.state.tr, docOf(paragraphs)).setMeta('addToHistory', false));
    };
    this.view.focus();
    this.told();
  }

  private told(): void {
    const { view } = this;
    if (!view) return;
    this.look.set(lookAt(view.state, noteLook));
    this.list.set(paragraphAt(view.state).list);
    this.isEmpty.set(view.state.doc.textContent === '' && view.state.doc.childCount === 1);
  }

  private plugins(): EditorState['plugins'][number][] {
    const done: Command = () => {
      this.done.emit();
      return true;
    };
    return [
      history(),
      keymap({
        ...textKeys(
          () => noteLook,
          () => this.done.emit(),
        ),
        // Tab leaves the words for the buttons: in a card there is more to reach.
        Tab: () => false,
        'Shift-Tab': () => false,
        'Mod-Enter': done,
        Enter: chainCommands(endList, splitBlockKeepMarks),
        Backspace: leaveList,
      }),
      keymap({ ...baseKeymap, Backspace: chainCommands(leaveList, baseKeymap['Backspace']) }),
    ];
  }
}

const LOOKS = [
  { key: 'bold', name: 'Bold', tip: 'Bold, Ctrl B', icon: 'textBold' },
  { key: 'italic', name: 'Italic', tip: 'Italic, Ctrl I', icon: 'textItalic' },
  { key: 'underline', name: 'Underlined', tip: 'Underlined, Ctrl U', icon: 'textUnderline' },
] as const;
const MARKS = [
  'font',
  'size',
  'color',
  'behind',
  'bold',
  'italic',
  'underline',
  'strike',
  'script',
];

const styled = <E extends HTMLElement>(element: E, styles: Record<string, string>): E => {
  for (const [key, value] of Object.entries(styles)) element.style.setProperty(key, value);
  return element;
};

function markView(mark: Mark): { dom: HTMLElement } {
  return { dom: styled(document.createElement('span'), cssOfLook(lookIn([mark]))) };
}

function paragraphView(node: Node): { dom: HTMLElement; contentDOM: HTMLElement } {
  const paragraph = paragraphOf(node);
  const dom = styled(document.createElement('p'), cssOfParagraph(paragraph));
  dom.dir = paragraph.direction ?? 'auto';
  if (paragraph.list) dom.dataset['list'] = paragraph.list;
  return { dom, contentDOM: dom };
}

function formulaView(node: Node): { dom: HTMLElement } {
  const dom = document.createElement('code');
  dom.textContent = `$${sourceOf(node) ?? ''}$`;
  return { dom };
}
