import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { pageView, transformBox } from '@stylet/core/geometry';
import { toPoints } from '@stylet/core/paper';
import { isSame } from '@stylet/core/same';
import { familyFacts, type Family, type ParagraphLook } from '@stylet/core/typed';
import type { Role, TextPicture } from '@stylet/core/typed-pages';
import { Store } from '@ngrx/store';
import { deleteSelection } from 'prosemirror-commands';
import type { Command } from 'prosemirror-state';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { documentFeature } from '../../platform/document/document.reducer';
import { formulaAt, putFormula } from '../../platform/typed/formula-commands';
import { PICTURE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { FormulaButton } from '../../platform/typed/formula-button';
import { LinkField } from '../../platform/typed/link-field';
import { ParagraphPane } from '../../platform/typed/paragraph-pane';
import {
  fontChoices,
  listChoices,
  markChoices,
  type MarkKey,
} from '../../platform/typed/text-choices';
import {
  listed,
  lookAt,
  paragraphAt,
  setLook,
  setParagraphs,
  ticked,
  toggleLook,
} from '../../platform/typed/text-commands';
import { ViewState } from '../../platform/view/view-state';
import { setRole } from './page-keys';
import { PagesEditing } from './pages-editing';
import { PictureTools } from './picture-tools';
import { TableButton } from './table-button';
import { tableAt } from './table-commands';
import { TextOpen } from './text-open';
import { TextPictures, changePicture, selectedPicture } from './text-pictures';
import { TextSaving } from './text-saving';

const ROLES: readonly { readonly value: Role | null; readonly name: string }[] = [
  { value: null, name: 'Plain text' },
  { value: 'heading1', name: 'Heading 1' },
  { value: 'heading2', name: 'Heading 2' },
  { value: 'heading3', name: 'Heading 3' },
  { value: 'heading4', name: 'Heading 4' },
  { value: 'quote', name: 'Quotation' },
  { value: 'code', name: 'Code' },
];
/** What the bar may cover above a line, in points. */
const ROOM_ABOVE = 60;
/** Margins all round, in mm. */
const MARGINS = [
  { name: 'Narrow', mm: 15 },
  { name: 'Usual', mm: 25 },
  { name: 'Wide', mm: 40 },
] as const;

/** What the text of the pages looks like, and how much of it there is. */
@Component({
  selector: 'stylet-typed-bar',
  imports: [
    FormulaButton,
    LinkField,
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    MatTooltipModule,
    ParagraphPane,
    PictureTools,
    TableButton,
  ],
  templateUrl: './typed-bar.html',
  styleUrl: './typed-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'toolbar',
    'aria-label': 'Text of the pages',
    // Taking hold of a button must not take the caret out of the text.
    '(mousedown)': 'keepCaret($event)',
  },
})
export class TypedBar {
  private readonly open = inject(TextOpen);
  private readonly store = inject(Store);
  private readonly state = this.store.selectSignal(documentFeature.selectState);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly api = inject(Api);
  private readonly view = inject(ViewState);
  protected readonly pictures = inject(TextPictures);
  protected readonly editing = inject(PagesEditing);
  protected readonly saving = inject(TextSaving);
  protected readonly roles = ROLES;
  protected readonly marks = markChoices;
  protected readonly lists = listChoices;
  protected readonly margins = MARGINS;
  protected readonly families = fontChoices;
  protected readonly trouble = signal<string | undefined>(undefined);

  protected readonly look = computed(
    () => {
      this.editing.version();
      const { view } = this.editing;
      const setup = this.editing.text()?.setup;
      return view && setup ? lookAt(view.state, setup.look) : {};
    },
    { equal: isSame },
  );
  protected readonly paragraph = computed<ParagraphLook>(
    () => {
      this.editing.version();
      const { view } = this.editing;
      return view ? paragraphAt(view.state) : {};
    },
    { equal: isSame },
  );
  protected readonly formula = computed(() => {
    this.editing.version();
    const { view } = this.editing;
    return (view && formulaAt(view.state)?.source) ?? '';
  });
  protected readonly picture = computed(() => {
    this.editing.version();
    const { view } = this.editing;
    return view && selectedPicture(view.state);
  });
  protected readonly tableHead = computed(() => {
    this.editing.version();
    const { view } = this.editing;
    const found = view && tableAt(view.state);
    return found && found.table.attrs['hasHead'] === true;
  });
  protected readonly roleName = computed(() => {
    this.editing.version();
    const role: unknown = this.editing.view?.state.selection.$from.parent.attrs['role'] ?? null;
    return ROLES.find(({ value }) => value === role)?.name ?? 'Plain text';
  });
  protected readonly setup = computed(() => this.editing.text()?.setup);
  protected readonly setupFont = computed(() => {
    const setup = this.setup();
    return setup && familyFacts[setup.look.font].name;
  });
  protected readonly isReady = computed(() => this.editing.pages() !== undefined);

  constructor() {
    const id = this.documentId()!;
    void this.editing.begin(this.open, id).catch((error: unknown) => {
      this.trouble.set(troubleOf(error).title);
    });
    effect(() => {
      this.state();
      untracked(() => this.editing.findPages());
    });
    effect(() => {
      const caret = this.editing.caret();
      untracked(() => caret && this.reveal(caret));
    });
    // The desk is left, or the text is: what was typed is sent all the same.
    inject(DestroyRef).onDestroy(() => void this.editing.end());
  }

  /** Has the line with the caret in view, not under the bar. */
  private reveal({ page, from, to }: { page: number; from: number; to: number }): void {
    const pages = this.view.pages();
    const index = pages.findIndex(({ id }) => this.open.indexOf(id) === page);
    if (index < 0) return;
    const { width, height, rotation } = pages[index];
    const line = { x0: 0, y0: from, x1: width, y1: to };
    const { y0, y1 } = transformBox(pageView(width, height, rotation, 1), line);
    this.view.reveal(index, Math.max(0, y0 - ROOM_ABOVE), y1);
  }

  protected keepCaret(event: MouseEvent): void {
    if (!(event.target instanceof HTMLInputElement)) event.preventDefault();
  }

  protected back(): void {
    setTimeout(() => this.editing.view?.focus());
  }

  protected done(): void {
    if (this.isReady()) void this.editing.done();
    else this.open.isOpen.set(false);
  }

  protected role(value: Role | null): void {
    this.run(setRole(value));
  }

  protected toggle(key: MarkKey): void {
    this.run(toggleLook(key, () => this.setup()!.look));
  }

  protected list(list: ParagraphLook['list']): void {
    this.change((look) => listed(look, list));
  }

  protected tick(): void {
    this.change(ticked);
  }

  protected change(change: (look: ParagraphLook) => ParagraphLook): void {
    this.run(setParagraphs(change));
  }

  protected link(link: string | undefined): void {
    this.run(setLook({ link }));
  }

  protected putFormula(source: string): void {
    this.run(putFormula(source));
  }

  protected async choosePictures(): Promise<void> {
    const files = await chooseFiles(PICTURE_FILES);
    this.run(await this.pictures.taken(files));
  }

  protected changePicture(change: (picture: TextPicture) => TextPicture): void {
    this.run(changePicture(change));
  }

  protected removePicture(): void {
    this.run(deleteSelection);
  }

  protected font(font: Family): void {
    const setup = this.setup();
    if (setup) this.editing.change({ ...setup, look: { ...setup.look, font } });
  }

  protected size(text: string): void {
    const [setup, size] = [this.setup(), Number(text.replace(',', '.'))];
    if (setup && size >= 6 && size <= 72)
      this.editing.change({ ...setup, look: { ...setup.look, size } });
  }

  protected margin(mm: number): void {
    const setup = this.setup();
    const side = toPoints(mm);
    const all = { top: side, right: side, bottom: side, left: side };
    if (setup) this.editing.change({ ...setup, margins: all });
  }

  protected head(words: string): void {
    const setup = this.setup();
    if (!setup) return;
    const { head: _head, ...rest } = setup;
    this.editing.change(words.trim() ? { ...rest, head: words.trim().slice(0, 300) } : rest);
  }

  protected number(): void {
    const setup = this.setup();
    if (setup) this.editing.change({ ...setup, isNumbered: !setup.isNumbered });
  }

  protected exportUrl(as: 'markdown' | 'html'): string {
    return this.api.writtenTextUrl(this.documentId()!, as);
  }

  protected run(command: Command): void {
    const { view } = this.editing;
    if (!view) return;
    command(view.state, view.dispatch);
    view.focus();
  }
}
