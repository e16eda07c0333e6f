import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import {
  colorOf,
  isEditable,
  reviewStates,
  saidIn,
  wordsOf,
  type Annotation,
  type Note,
  type NoteState,
  type Reply,
} from '@stylet/core/document';
import type { Paragraph } from '@stylet/core/typed';
import { highlighterColors, inkColors } from '../../platform/kit/palettes';
import type { ThreadInMargin } from './margin';
import { NoteEditor } from './note-editor';
import { NoteInHand } from './note-in-hand';
import { NoteWords } from './note-words';
import { Notes } from './notes';
import { replyCount } from '../../platform/selection/reply-count';
import { stateNames } from '../../platform/selection/state-names';
import { settingWords } from './states';
import { kindWords } from './kind-words';
import { whenInFull, whenSaid } from './when';

/** Something that was said, or set. */
interface Said {
  readonly key: string;
  readonly annotation: Note | Reply;
  readonly author: string;
  readonly when: string;
  readonly inFull: string;
  /** What it was set to; undefined where words were said. */
  readonly set: string | undefined;
}

/** A thread in the margin: what was said, by whom and when; with all that can be done once it is open. */
@Component({
  selector: 'stylet-note-card',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, NoteEditor, NoteWords],
  templateUrl: './note-card.html',
  styleUrl: './note-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'article',
    '[attr.aria-label]': 'label()',
    '[class.open]': 'isOpen()',
    '[style.--note]': 'color()',
  },
})
export class NoteCard {
  readonly item = input.required<ThreadInMargin>();
  protected readonly notes = inject(Notes);
  protected readonly hand = inject(NoteInHand);
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  protected readonly thread = computed(() => this.item().thread);
  protected readonly root = computed(() => this.thread().root);
  protected readonly isOpen = computed(() => this.notes.active()?.id === this.root().id);
  protected readonly color = computed(() => {
    const root = this.root();
    return colorOf(root);
  });
  /** What it is about, where that is no note. */
  protected readonly about = computed(() => kindWords(this.root()));
  /** The words it begins with: with looks where they have some. */
  protected readonly words = computed<readonly Paragraph[]>(() => {
    const root = this.root();
    if (root.kind === 'note') return root.paragraphs;
    const words = wordsOf(root);
    return words === '' ? [] : [{ runs: [{ text: words }] }];
  });
  protected readonly first = computed(() => this.root().author);
  protected readonly when = computed(() => whenSaid(this.root().created));
  protected readonly inFull = computed(() => whenInFull(this.root().created));
  protected readonly count = computed(() => saidIn(this.thread()).length);
  protected readonly replies = computed(() => replyCount(this.count()));
  protected readonly state = computed(() => {
    const { state } = this.thread();
    return state?.state ? { value: state.state, by: state.author } : undefined;
  });
  protected readonly said = computed<readonly Said[]>(() => this.thread().replies.map(said));
  protected readonly label = computed(() => {
    const words = this.words()
      .flatMap(({ runs }) => runs.map(({ text }) => text))
      .join(' ');
    return `${this.about() || 'Note'} of ${this.first()}: ${words || 'no words yet'}. ${this.replies()}.`;
  });
  protected readonly canEdit = computed(() => isEditable(this.root()));
  protected readonly colors = [...highlighterColors, ...inkColors];
  /** What a review can say of it. */
  protected readonly states = computed(() => {
    const [now, isMarked] = [this.state()?.value, this.thread().isMarked];
    const wanted: readonly NoteState[] = [
      ...reviewStates.filter((state) => state !== 'none' && state !== now),
      ...(now ? ['none' as const] : []),
      isMarked ? 'unmarked' : 'marked',
    ];
    return wanted.map((state) => ({ state, does: settingWords[state] }));
  });
  protected readonly stateNames = stateNames;

  protected isInHand({ id }: Annotation): boolean {
    return this.hand.note()?.id === id;
  }

  protected edit(): void {
    const root = this.root();
    if (root.kind === 'note') this.notes.edit(root);
    else this.notes.beginReply(root);
  }

  protected recolor(color: string): void {
    const root = this.root();
    if (root.kind === 'note') this.notes.recolor(root, color);
  }

  protected done(): void {
    this.hand.end();
    setTimeout(() => this.own.querySelector<HTMLElement>('.head')?.focus());
  }

  protected key(event: KeyboardEvent): void {
    const act = this.actFor(event);
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  }

  private actFor({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): (() => void) | undefined {
    if (ctrlKey || metaKey || altKey) return undefined;
    const root = this.root();
    if (key.toLowerCase() === 'r') return () => this.notes.beginReply(root);
    if (key === 'F2' && root.kind === 'note') return () => this.edit();
    if ((key === 'Delete' || key === 'Backspace') && root.kind === 'note')
      return () => this.notes.remove(root);
    return undefined;
  }
}

function said(reply: Reply): Said {
  const { id, author, created, state } = reply;
  return {
    key: id,
    annotation: reply,
    author,
    when: whenSaid(created),
    inFull: whenInFull(created),
    set: state && stateNames[state],
  };
}
