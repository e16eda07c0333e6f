import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  find,
  highestOrder,
  newId,
  orderAbove,
  styleOfBox,
  type Effect,
  type TextBox,
} from '@stylet/core/document';
import type { Matrix } from '@stylet/core/geometry';
import { isSame } from '@stylet/core/same';
import type { Paragraph } from '@stylet/core/typed';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import type { Remains } from '../../platform/paper/remains';
import { BoxSizes } from './box-sizes';
import { fieldsSince, goneOn } from './going-on';
import type { TextInHand } from './text-in-hand';
import { TextStyleKit } from './text-style-kit';

/** What is typed is sent on after so many ms; a pause of so many begins another step of undo. */
const SENT_AFTER = 400;
const BURST = 1500;
/** As many of what was sent may still be on their way. */
const MOST_BEFORE = 20;

/** The box of text that is being typed in. */
@Injectable()
export class Typing {
  private readonly editing = inject(Editing);
  private readonly sizes = inject(BoxSizes);
  private readonly author = inject(Author);
  private readonly styles = inject(TextStyleKit);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);
  private readonly draft = signal<TextBox | undefined>(undefined);
  /** As it was sent last; undefined for one that is not on its page yet. */
  private sent: TextBox | undefined;
  /** As it was before it was sent, lately: where that is not taken the page has one of these again. */
  private before: readonly TextBox[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private burstEnds = 0;

  /** What edits it, once that is shown. */
  readonly editor = signal<TextInHand | undefined>(undefined);

  /** As it is now; its words may not be on the page yet. */
  readonly box = this.draft.asReadonly();
  readonly pageId = computed(() => this.draft()?.pageId);
  private readonly id = computed(() => this.draft()?.id);
  /** What is on the page of it, whoever made that. */
  private readonly there = computed(() => {
    const [id, pageId] = [this.id(), this.pageId()];
    const box = id !== undefined && pageId !== undefined && find(this.state(), pageId, id);
    return box && box.kind === 'textBox' ? box : undefined;
  });

  /** While it is edited it is drawn by the editor. */
  readonly remains = computed<Remains | undefined>(() => {
    const id = this.id();
    // Whatever is typed, its page need not look again at all that is on it.
    const box = untracked(this.draft);
    return id === undefined || !box ? undefined : { gone: new Map([[id, box]]), left: [] };
  });

  constructor() {
    effect(() => {
      const box = this.there();
      if (box) untracked(() => this.heard(box));
    });
  }

  /** A new box, as wide as its text or of a width; `transform` from its top left to page space. */
  begin(pageId: string, transform: Matrix, width?: number): void {
    this.end();
    const now = new Date().toISOString();
    const { color, look, frame, paragraph } = this.styles.last();
    const annotations = Object.values(this.state().annotations[pageId] ?? {});
    this.draft.set(
      this.sizes.measured({
        kind: 'textBox',
        id: newId(),
        pageId,
        order: orderAbove(
          highestOrder(Object.fromEntries(annotations.map((one) => [one.id, one]))),
        ),
        author: this.author.name(),
        created: now,
        modified: now,
        opacity: 1,
        color,
        look,
        frame,
        paragraphs: [{ ...paragraph, runs: [] }],
        size: { width: width ?? 0, height: 0 },
        ...(width === undefined ? {} : { keepsWidth: true }),
        transform: [...transform],
      }),
    );
  }

  /** A box that is there is edited. */
  open(box: TextBox): void {
    this.end();
    this.sent = box;
    this.draft.set(box);
  }

  /** Its words are others now. */
  typed(paragraphs: Paragraph[]): void {
    this.change({ paragraphs });
  }

  /** Something of it has been changed. */
  change(
    fields: Partial<
      Pick<TextBox, 'paragraphs' | 'look' | 'color' | 'frame' | 'size' | 'keepsWidth'>
    >,
  ): void {
    const before = this.draft();
    if (!before) return;
    this.draft.set(
      this.sizes.measured({ ...before, ...fields, modified: new Date().toISOString() }),
    );
    this.timer ??= setTimeout(() => this.send(), SENT_AFTER);
  }

  /** Editing is over: what is empty goes. */
  end(): void {
    this.send();
    const box = this.draft();
    if (!box) return;
    if (!isEmpty(box)) {
      this.styles.keep(styleOfBox(box));
      // Whoever has typed before its fonts came leaves a box of a guessed size, which is put right when they do.
      this.sizes.settle(box, (id) => this.draft()?.id === id);
    } else if (this.sent && find(this.state(), box.pageId, box.id)) this.carryOut(removalOf(box));
    this.draft.set(undefined);
    this.sent = undefined;
    this.before = [];
    this.burstEnds = 0;
  }

  /** Its size has to be found out again: fonts have come. */
  measure(): void {
    const box = this.draft();
    if (!box) return;
    const now = this.sizes.measured(box);
    if (now.size.width !== box.size.width || now.size.height !== box.size.height)
      this.draft.set(now);
  }

  /** Somebody else has gone on with it, or it is here as it was sent. */
  private heard(theirs: TextBox): void {
    const [sent, draft] = [this.sent, this.draft()];
    if (!sent || !draft || sent === theirs || this.before.some(isJust(theirs))) return;
    const box = goneOn(sent, theirs, draft);
    this.sent = theirs;
    if (isSame({ ...box, modified: '' }, { ...draft, modified: '' })) return;
    const isTyped = !isSame(box.paragraphs, draft.paragraphs);
    this.draft.set(this.sizes.measured(box));
    if (isTyped) this.editor()?.goOnWith(box.paragraphs);
  }

  private send(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const box = this.draft();
    if (!box || box === this.sent) return;
    if (this.sent && find(this.state(), box.pageId, box.id)) {
      const fields = fieldsSince(this.sent, box);
      if (!fields) return;
      const { pageId, id: annotationId } = box;
      const was = fields.paragraphs ? { was: { paragraphs: this.sent.paragraphs } } : {};
      this.before = [...this.before, this.sent].slice(-MOST_BEFORE);
      this.sent = box;
      this.carryOut({ type: 'annotation.change', pageId, annotationId, fields, ...was });
      return;
    }
    if (isEmpty(box)) return;
    // Somebody has removed it while it is typed in: what is typed is not lost, and is a box of its own.
    const own = this.sent ? { ...box, id: newId() } : box;
    this.draft.set(own);
    this.carryOut({ type: 'annotation.add', annotation: own });
    this.sent = own;
  }

  /** A burst of typing is one step of undo. */
  private carryOut(effect: Effect): void {
    const now = Date.now();
    if (now < this.burstEnds) this.editing.amend([effect]);
    else this.editing.change([effect]);
    this.burstEnds = now + BURST;
  }
}

const isJust =
  ({ modified, paragraphs }: TextBox) =>
  (one: TextBox): boolean =>
    one.modified === modified && isSame(one.paragraphs, paragraphs);

const isEmpty = ({ paragraphs }: TextBox): boolean =>
  paragraphs.every(({ runs }) => runs.length === 0);

const removalOf = ({ pageId, id }: TextBox): Effect => ({
  type: 'annotation.remove',
  pageId,
  annotationId: id,
});
